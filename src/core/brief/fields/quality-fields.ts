/** How good a picture must be, and how its light paths are followed. */
import { QUALITY_KEYS, QUALITY_STEPS, type QualityKey, stepSettings } from '../../catalogue/quality';
import { choice, flag, list, nullable, number, object, text, whole } from './field';

const bounces = (label: string, doc: string) => nullable(whole({ label, doc, default: 4, min: 0, max: 64, since: 1 }));
const names = (label: string, doc: string, what: string, item: string) =>
  list(text({ label: item, doc: `${item} by name.`, default: '', maxLength: 200, must: `must be a list of ${what}` }), {
    label,
    doc,
    maxItems: 100,
    what
  });

export const QUALITY = object(
  {
    step: choice(QUALITY_KEYS, {
      label: 'Step',
      doc: 'What the picture is for. A step brings its own samples, grain, min_samples, bounces and scale.',
      default: 'study',
      decides: 'neither'
    }),
    samples: whole({
      label: 'Samples per pixel',
      doc: 'Exact when grain is null, else the limit.',
      default: 96,
      min: 1,
      max: 65_536,
      amount: true
    }),
    grain: nullable(
      number({
        label: 'Grain',
        doc: 'A tile stops when its grain before denoising is lower; looked at after 16, 32, 64 … samples.',
        default: 5,
        min: 0.01,
        max: 20,
        unit: 'L*',
        amount: true
      })
    ),
    min_samples: whole({
      label: 'Min samples',
      doc: 'Samples that a tile has before its grain may end it.',
      default: 32,
      min: 1,
      max: 65_536,
      amount: true
    }),
    bounces: whole({
      label: 'Bounces',
      doc: 'Scatterings on a path; 0 shows what glows and the surroundings, 1 adds direct light.',
      default: 10,
      min: 0,
      max: 64
    }),
    scale: number({
      label: 'Share of the size',
      doc: 'Share of the full size that is rendered.',
      default: 1,
      min: 0.01,
      max: 1,
      amount: true
    }),
    firefly: nullable(
      number({
        label: 'Limit for bright specks',
        doc: 'Most that one indirect contribution may weigh, in multiples of the exposure’s white; null: no limit.',
        default: 4,
        min: 0.1,
        max: 1e6,
        unit: '× white'
      })
    ),
    diffuse_bounces: bounces('Diffuse bounces', 'Max diffuse bounces; null: only bounces limits them.'),
    specular_bounces: bounces('Reflections', 'Max specular bounces; null: only bounces limits them.'),
    transmission_bounces: bounces('Refractions', 'Max bounces through glass; null: only bounces limits them.'),
    transparent_bounces: whole({
      label: 'Transparent layers',
      doc: 'Cut-outs, nets and panes that a path may pass.',
      default: 256,
      min: 0,
      max: 1024
    }),
    minutes: nullable(
      number({
        label: 'Time limit',
        doc: 'The render ends with what there is; null: no limit.',
        default: 30,
        min: 0.05,
        max: 10_000,
        unit: 'minutes',
        amount: true
      })
    ),
    filter_px: number({
      label: 'Pixel filter',
      doc: 'Half the width of the pixel filter.',
      default: 1.5,
      min: 0.5,
      max: 4,
      unit: 'px'
    }),
    emissive_lights: flag({
      label: 'Glowing surfaces light the scene',
      doc: 'Whether glowing surfaces light the scene, or are only seen.',
      default: true
    }),
    layers: flag({
      label: 'Light layers',
      doc: 'Keeps each light group’s share of the picture in a layer of its own.',
      default: false
    }),
    aovs: flag({
      label: 'Masks, depth and light passes',
      doc: 'Adds masks of objects and materials, depth, and light passes to the EXR.',
      default: false
    }),
    aside: names('Left out', 'Groups of objects that Glance and Study leave out.', 'groups of objects', 'Group'),
    slim: names(
      'Simplified',
      'Groups of objects that Glance and Study replace by slim copies.',
      'groups of objects',
      'Group'
    ),
    plain: names('Plain', 'Materials that Glance and Study show matte, in their own colour.', 'materials', 'Material')
  },
  {
    label: 'Quality',
    doc: 'How good the picture must be.',
    word: 'quality',
    complete: (given) =>
      typeof given.step === 'string' && Object.hasOwn(QUALITY_STEPS, given.step) && given.samples === undefined
        ? { ...stepSettings(given.step as QualityKey), ...given }
        : given
  }
);
