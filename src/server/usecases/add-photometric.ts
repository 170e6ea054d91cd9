/** A photometric file, LM-63 or EULUMDAT, into the library: read once to be sure that it can be used. */
import { readFile, stat } from 'node:fs/promises';
import type { PhotometricDto } from '../../contracts/dto';
import { resampleWeb, polarCurve, webFlux } from '../../core/lights/web/web';
import { readPhotometric } from '../../formats/photometry/read-photometric';
import { PhotometryRefused } from '../../formats/photometry/refused';
import { contentPath, has, put } from '../files/content-store';
import { insertPhotometric } from '../store/photometric';
import { type Result, ok, refused } from '../../core/result/result';

// The largest that makers publish are a few hundred kB.
const MAX_BYTES = 8 * 2 ** 20;

export async function addPhotometric(upload: string, fileName: string): Promise<Result<PhotometricDto>> {
  if (!(await has('incoming', upload)))
    return refused(`"${fileName}" was not uploaded completely. Choose it again`, 'missing_upload');
  const path = contentPath('incoming', upload);
  const { size } = await stat(path);
  if (size > MAX_BYTES)
    return refused(
      `"${fileName}" has ${Math.round(size / 2 ** 20)} MB; photometric files are text of at most ${MAX_BYTES / 2 ** 20} MB`
    );
  const bytes = new Uint8Array(await readFile(path));
  try {
    const { web: measured, watts, name } = readPhotometric(bytes);
    const web = resampleWeb(measured);
    const lumen = webFlux(web);
    if (!(lumen > 0)) return refused(`"${fileName}" says that its lamp gives no light: every intensity in it is 0`);
    const { sha256 } = await put('photometric', bytes);
    const shown = (name || fileName.replace(/\.[A-Za-z0-9]+$/, '')).slice(0, 80);
    const curve = polarCurve(web);
    insertPhotometric({
      sha256,
      name: shown,
      lumen,
      watts,
      curve_json: JSON.stringify(curve),
      created_at_ms: Date.now()
    });
    return ok({ sha256, name: shown, lumen, watts, curve });
  } catch (error) {
    if (error instanceof PhotometryRefused) return refused(`"${fileName}", ${error.message}`);
    throw error;
  }
}
