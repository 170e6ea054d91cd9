import { createHash } from 'node:crypto';
import { type Brief, canonicalJson, filmBrief } from '../../core/brief/brief';
import { rendererVersion } from '../files/renderer-version';

/** What a film is found by: renderer, model and brief without its finish. Equal keys mean equal bits. */
export const filmKey = (model: string, brief: Brief): string =>
  createHash('sha256')
    .update(canonicalJson({ renderer: rendererVersion(), model, brief: filmBrief(brief) }))
    .digest('hex');
