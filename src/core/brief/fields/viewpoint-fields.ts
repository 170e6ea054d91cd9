/** Where a picture is seen from. */
import { choice, flag, nullable, number, object, shapes, text, vector } from './field';

const FAR_M = 1e7;

const free = object(
  {
    position_m: vector({
      label: 'Position',
      doc: 'Where the camera stands.',
      default: [0, 1.6, 4],
      min: -FAR_M,
      max: FAR_M
    }),
    target_m: vector({ label: 'Target', doc: 'What it looks at.', default: [0, 1, 0], min: -FAR_M, max: FAR_M }),
    up: vector({ label: 'Up', doc: 'Which way is up in the picture.', default: [0, 1, 0], min: -1e3, max: 1e3 }),
    projection: choice(['perspective', 'parallel', 'panorama'], {
      label: 'Projection',
      doc: 'Perspective, parallel as in drawings, or all around on a level (equirectangular).',
      default: 'perspective',
      word: 'lens'
    }),
    upright: flag({
      label: 'Straight verticals',
      doc: 'The camera stays level, and its lens is shifted until the target is in the middle.',
      default: false,
      word: 'lens'
    }),
    focal_length_mm: number({
      label: 'Focal length',
      doc: 'Focal length of the lens.',
      default: 35,
      min: 4,
      max: 2000,
      unit: 'mm',
      word: 'lens'
    }),
    sensor_height_mm: number({
      label: 'Sensor height',
      doc: 'Height of the sensor, which the picture’s height fills; its width follows from the proportion.',
      default: 24,
      min: 1,
      max: 500,
      unit: 'mm',
      word: 'lens'
    }),
    f_number: nullable(
      number({
        label: 'f-number',
        doc: 'Depth of field; null: everything is sharp.',
        default: 8,
        min: 0.5,
        max: 128,
        word: 'lens'
      })
    ),
    focus_m: nullable(
      number({
        label: 'Focus distance',
        doc: 'Distance of the sharp plane; null: the target.',
        default: 2,
        min: 0.001,
        max: FAR_M,
        unit: 'm',
        word: 'lens'
      })
    ),
    height_m: nullable(
      number({
        label: 'Height of the picture',
        doc: 'Height of a parallel picture; null: what the lens would show at the target.',
        default: 2,
        min: 0.0001,
        max: FAR_M,
        unit: 'm',
        word: 'lens'
      })
    )
  },
  { label: 'Free viewpoint', doc: 'A camera by numbers.' }
);

const named = object(
  {
    camera: text({
      label: 'Camera',
      doc: 'Name of a camera of the model.',
      default: '',
      minLength: 1,
      maxLength: 200,
      must: 'must be the name of a camera in the model'
    })
  },
  { label: 'Camera of the model', doc: 'A camera of the model by its name.' }
);

export const SECTION = nullable(
  object(
    {
      point_m: vector({ label: 'Point', doc: 'On the plane.', default: [0, 1.2, 0], min: -FAR_M, max: FAR_M }),
      normal: vector({
        label: 'Removes towards',
        doc: 'Away from what stays; of any length but zero.',
        default: [0, 1, 0],
        min: -1e3,
        max: 1e3
      })
    },
    {
      label: 'Section plane',
      doc: 'The camera looks through all that lies between it and the plane, which still casts light and shadow.',
      word: 'viewpoint',
      check: ({ normal }) => (Math.hypot(...normal) > 1e-9 ? null : 'normal must point somewhere')
    }
  )
);

export const VIEWPOINT = shapes(
  { free, named },
  {
    label: 'Viewpoint',
    doc: 'Where the picture is seen from.',
    word: 'viewpoint',
    initial: 'free',
    choose: (value) => ('camera' in value ? 'named' : 'free')
  }
);
