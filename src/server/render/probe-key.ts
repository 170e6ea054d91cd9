/** By what a probe is found. */
import { createHash } from 'node:crypto';
import { canonicalJson, type Brief } from '../../core/brief/brief';
import { probeOf } from '../../core/forecast/probe-brief';

export const probeKey = (model: string, brief: Brief): string =>
  createHash('sha256')
    .update(canonicalJson({ model, brief: probeOf(brief) }))
    .digest('hex');
