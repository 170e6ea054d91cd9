/** JSON from outside: refused when it is none, or is nested deeper than anything of ours. */
import { type Result, ok, refused } from '../core/result/result';

const MOST_LEVELS = 32;

export function readJson(text: string): Result<unknown> {
  if (levelsOf(text) > MOST_LEVELS)
    return refused(`it must be JSON of at most ${MOST_LEVELS} levels of objects and lists`, 'bad_input');
  try {
    return ok(JSON.parse(text));
  } catch {
    return refused('it must be JSON', 'bad_input');
  }
}

/** How deep lists and objects are nested; brackets within strings do not count. */
function levelsOf(text: string): number {
  let [levels, most, quoted] = [0, 0, false];
  for (let i = 0; i < text.length; i++) {
    const c = text[i];
    if (quoted && c === '\\') i++;
    else if (c === '"') quoted = !quoted;
    else if (quoted) continue;
    else if (c === '[' || c === '{') most = Math.max(most, ++levels);
    else if (c === ']' || c === '}') levels--;
  }
  return most;
}
