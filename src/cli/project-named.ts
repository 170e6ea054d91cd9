/** The one project that a command names. */
import { projectsNamed } from '../server/usecases/bring-revision';
import { BadInput } from './bad-input';

/** Its id. `whose`: "the file is of". */
export function projectNamed(name: string | undefined, whose: string): string {
  if (!name) throw new BadInput(`say which project ${whose}: --project "Reading room"`);
  const named = projectsNamed(name);
  if (named.length !== 1)
    throw new BadInput(
      named.length === 0
        ? `there is no project "${name}" in this data; bring the model in first, or set SPHAERA_DATA to its folder`
        : `${named.length} projects are called "${name}"; rename all but one`
    );
  return named[0]!;
}
