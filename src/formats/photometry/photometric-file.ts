/** What a photometric file says, whatever its format. */
import type { MeasuredWeb } from '../../core/lights/web/web';

export interface PhotometricFile {
  name: string;
  web: MeasuredWeb;
  /** W; null when the file does not say. */
  watts: number | null;
}
