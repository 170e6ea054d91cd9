/**
 * The materials of the library, by name, at real scale: patterns fill space, so parts need no texture coordinates. Linear
 * reflectances are our own choice by eye, within what measured surfaces have; those of metals are near published ones.
 */
import { meanColor, type SolidTexture } from '../materials/solid-texture';
import type { Vec3 } from '../math/vec3';
import { LAYERS_DEFAULTS, type MaterialLayers, type SceneMaterial } from './scene';

export const MATERIAL_FAMILIES = {
  wood: 'Timber',
  floor: 'Floors',
  stone: 'Stone',
  mineral: 'Concrete, brick and plaster',
  metal: 'Metal',
  glass: 'Glass and liquids',
  ceramic: 'Ceramics',
  plastic: 'Plastics and rubber',
  paint: 'Paint and paper',
  textile: 'Textiles and leather',
  outdoors: 'Ground and roofs'
} as const;
export type MaterialFamily = keyof typeof MATERIAL_FAMILIES;

export interface LibraryMaterial {
  key: string;
  name: string;
  family: MaterialFamily;
  material: Partial<SceneMaterial>;
}

const layers = (more: Partial<MaterialLayers>): MaterialLayers => ({ ...LAYERS_DEFAULTS, ...more });
const even = (v: number): Vec3 => [v, v, v];
const opaque = (color: Vec3): SceneMaterial['baseColor'] => [...color, 1];

type Colors = SolidTexture['colors'];
const solid = (
  kind: SolidTexture['kind'],
  size_m: number,
  colors: Colors,
  more: Partial<SolidTexture> = {}
): SolidTexture => ({
  kind,
  size_m,
  colors,
  relief_m: 0,
  roughness_change: 0.1,
  axis: 'x',
  seed: 1,
  ...more
});

const out: LibraryMaterial[] = [];
const put = (family: MaterialFamily, name: string, material: Partial<SceneMaterial>) =>
  out.push({ key: name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-'), name, family, material });

/** Late wood, early wood and pores; years of a width; raw, oiled or lacquered. */
function timber(name: string, colors: Colors, ring_mm: number, seed: number): void {
  const grain = (relief_m: number) => solid('wood', ring_mm / 1000, colors, { relief_m, roughness_change: 0.2, seed });
  put('wood', `${name}, raw`, { solid_texture: grain(0.00025), roughness: 0.75, specular: 0.7 });
  put('wood', `${name}, oiled`, {
    solid_texture: grain(0.00015),
    baseColor: opaque([0.86, 0.82, 0.78]),
    roughness: 0.45
  });
  put('wood', `${name}, lacquered`, {
    solid_texture: grain(0.00008),
    baseColor: opaque([0.88, 0.85, 0.8]),
    roughness: 0.4,
    layers: layers({ coat: 1, coatRoughness: 0.08 })
  });
}
timber(
  'Oak',
  [
    [0.2, 0.115, 0.055],
    [0.5, 0.335, 0.19],
    [0.09, 0.055, 0.03]
  ],
  4.2,
  1
);
timber(
  'Walnut',
  [
    [0.085, 0.042, 0.022],
    [0.25, 0.138, 0.073],
    [0.04, 0.022, 0.014]
  ],
  6,
  9
);
timber(
  'Ash',
  [
    [0.42, 0.31, 0.2],
    [0.66, 0.55, 0.4],
    [0.3, 0.22, 0.14]
  ],
  5,
  3
);
timber(
  'Larch',
  [
    [0.26, 0.12, 0.055],
    [0.54, 0.33, 0.17],
    [0.2, 0.1, 0.05]
  ],
  3.2,
  5
);
timber(
  'Maple',
  [
    [0.58, 0.44, 0.29],
    [0.74, 0.62, 0.45],
    [0.5, 0.37, 0.25]
  ],
  5.5,
  7
);
/** Boards or strips of a width, with joints; each board from elsewhere in the tree, a little lighter or darker. */
function floor(name: string, kind: 'boards' | 'herringbone', colors: Colors, width_mm: number, gloss: number): void {
  put('floor', name, {
    solid_texture: solid(kind, width_mm / 1000, colors, {
      relief_m: width_mm / 60_000,
      roughness_change: 0.15,
      seed: 4
    }),
    roughness: 0.45,
    ...(gloss > 0 ? { layers: layers({ coat: gloss, coatRoughness: 0.12 }) } : {})
  });
}
const OAK: Colors = [
  [0.2, 0.115, 0.055],
  [0.46, 0.305, 0.17],
  [0.05, 0.032, 0.02]
];
const SMOKED: Colors = [
  [0.07, 0.042, 0.026],
  [0.16, 0.1, 0.062],
  [0.02, 0.014, 0.01]
];
floor('Oak boards, oiled', 'boards', OAK, 140, 0);
floor('Oak boards, lacquered', 'boards', OAK, 120, 0.7);
floor('Smoked oak boards', 'boards', SMOKED, 180, 0);
floor(
  'Pine boards, soaped',
  'boards',
  [
    [0.45, 0.32, 0.2],
    [0.68, 0.55, 0.39],
    [0.2, 0.14, 0.09]
  ],
  160,
  0
);
floor('Oak herringbone', 'herringbone', OAK, 70, 0.5);
floor(
  'Walnut herringbone',
  'herringbone',
  [
    [0.085, 0.042, 0.022],
    [0.23, 0.128, 0.068],
    [0.025, 0.015, 0.01]
  ],
  80,
  0.5
);
floor(
  'Larch cladding, greyed',
  'boards',
  [
    [0.17, 0.155, 0.14],
    [0.36, 0.335, 0.3],
    [0.03, 0.028, 0.026]
  ],
  95,
  0
);
put('wood', 'Plywood, birch', {
  solid_texture: solid(
    'wood',
    0.009,
    [
      [0.52, 0.39, 0.25],
      [0.7, 0.57, 0.4],
      [0.45, 0.33, 0.2]
    ],
    { axis: 'y', seed: 12 }
  ),
  roughness: 0.6
});
put('wood', 'Timber, weathered grey', {
  solid_texture: solid(
    'wood',
    0.004,
    [
      [0.19, 0.185, 0.175],
      [0.4, 0.39, 0.37],
      [0.09, 0.09, 0.085]
    ],
    { relief_m: 0.0006, seed: 8 }
  ),
  roughness: 0.9,
  specular: 0.5
});
put('wood', 'Timber, charred', {
  solid_texture: solid(
    'wood',
    0.004,
    [
      [0.022, 0.021, 0.02],
      [0.045, 0.043, 0.042],
      [0.012, 0.012, 0.012]
    ],
    { relief_m: 0.0012, seed: 4 }
  ),
  roughness: 0.6
});

/** Dark, light, veins; polished, honed or rough. */
function quarried(name: string, colors: Colors, vein_m: number, seed: number): void {
  const veins = (relief_m: number) => solid('stone', vein_m, colors, { relief_m, roughness_change: 0.05, seed });
  put('stone', `${name}, polished`, { solid_texture: veins(0), roughness: 0.04 });
  put('stone', `${name}, honed`, { solid_texture: veins(0), roughness: 0.4 });
}
quarried(
  'Marble, white',
  [
    [0.62, 0.61, 0.59],
    [0.82, 0.81, 0.8],
    [0.28, 0.27, 0.27]
  ],
  0.18,
  4
);
quarried(
  'Marble, green',
  [
    [0.045, 0.1, 0.07],
    [0.11, 0.19, 0.14],
    [0.5, 0.56, 0.52]
  ],
  0.12,
  6
);
quarried(
  'Slate',
  [
    [0.06, 0.065, 0.07],
    [0.1, 0.105, 0.11],
    [0.16, 0.165, 0.17]
  ],
  0.3,
  2
);
quarried(
  'Limestone',
  [
    [0.48, 0.43, 0.35],
    [0.6, 0.55, 0.46],
    [0.4, 0.35, 0.28]
  ],
  0.4,
  8
);
put('stone', 'Granite, polished', {
  solid_texture: solid(
    'terrazzo',
    0.004,
    [
      [0.34, 0.33, 0.32],
      [0.08, 0.08, 0.085],
      [0.62, 0.58, 0.55]
    ],
    { seed: 3 }
  ),
  roughness: 0.06
});
put('stone', 'Sandstone, sawn', {
  solid_texture: solid('noise', 0.03, [[0.42, 0.31, 0.19], [0.58, 0.46, 0.31], even(0)], { relief_m: 0.0004, seed: 6 }),
  roughness: 0.9,
  specular: 0.4
});
put('stone', 'Terrazzo', {
  solid_texture: solid(
    'terrazzo',
    0.022,
    [
      [0.66, 0.63, 0.585],
      [0.14, 0.2, 0.18],
      [0.58, 0.27, 0.17]
    ],
    { seed: 6 }
  ),
  roughness: 0.18
});

put('mineral', 'Concrete, cast', {
  solid_texture: solid('concrete', 0.35, [[0.36, 0.35, 0.335], [0.52, 0.51, 0.49], even(0.1)], { relief_m: 0.0012 }),
  roughness: 0.85,
  specular: 0.6
});
put('mineral', 'Concrete, polished', {
  solid_texture: solid('concrete', 0.3, [[0.3, 0.295, 0.285], [0.42, 0.41, 0.4], even(0.12)], { seed: 5 }),
  roughness: 0.2
});
put('mineral', 'Concrete, dark', {
  solid_texture: solid('concrete', 0.35, [even(0.09), even(0.15), even(0.04)], { relief_m: 0.001, seed: 9 }),
  roughness: 0.8,
  specular: 0.6
});
put('mineral', 'Brick, red', {
  solid_texture: solid(
    'brick',
    0.25,
    [
      [0.27, 0.085, 0.045],
      [0.42, 0.17, 0.095],
      [0.46, 0.435, 0.4]
    ],
    { relief_m: 0.006, seed: 2 }
  ),
  roughness: 0.9,
  specular: 0.5
});
put('mineral', 'Brick, yellow', {
  solid_texture: solid(
    'brick',
    0.25,
    [
      [0.48, 0.36, 0.19],
      [0.6, 0.48, 0.29],
      [0.5, 0.48, 0.44]
    ],
    { relief_m: 0.006, seed: 7 }
  ),
  roughness: 0.9,
  specular: 0.5
});
put('mineral', 'Brick, whitewashed', {
  solid_texture: solid(
    'brick',
    0.25,
    [
      [0.66, 0.65, 0.62],
      [0.78, 0.77, 0.74],
      [0.68, 0.67, 0.64]
    ],
    { relief_m: 0.005, seed: 3 }
  ),
  roughness: 0.9,
  specular: 0.5
});
const plaster = (name: string, dark: Vec3, light: Vec3, relief_m: number) =>
  put('mineral', name, {
    solid_texture: solid('noise', 0.5, [dark, light, even(0)], { relief_m, roughness_change: 0.03, seed: 5 }),
    roughness: 0.95,
    specular: 0.5
  });
plaster('Plaster, white', [0.735, 0.715, 0.675], [0.81, 0.79, 0.745], 0.002);
plaster('Plaster, clay', [0.36, 0.24, 0.16], [0.45, 0.32, 0.22], 0.004);
plaster('Render, rough', [0.58, 0.56, 0.52], [0.66, 0.64, 0.6], 0.012);

const metal = (name: string, color: Vec3, roughness: number, more: Partial<SceneMaterial> = {}) =>
  put('metal', name, { baseColor: opaque(color), metallic: 1, roughness, ...more });
metal('Steel, polished', [0.58, 0.57, 0.55], 0.05);
metal('Steel, brushed', [0.56, 0.55, 0.53], 0.28, { layers: layers({ anisotropy: 0.6 }) });
metal('Steel, blackened', [0.06, 0.06, 0.062], 0.38, { metallic: 0.6 });
metal('Aluminium, matte', [0.88, 0.885, 0.89], 0.34);
metal('Aluminium, anodised dark', [0.13, 0.13, 0.14], 0.35);
metal('Chrome', [0.55, 0.556, 0.554], 0.02);
metal('Brass, polished', [0.86, 0.62, 0.3], 0.06);
metal('Brass, brushed', [0.82, 0.6, 0.3], 0.3, { layers: layers({ anisotropy: 0.6 }) });
metal('Copper, polished', [0.93, 0.55, 0.4], 0.08);
metal('Bronze, dark', [0.24, 0.15, 0.09], 0.35);
metal('Gold', [1, 0.77, 0.34], 0.1);
put('metal', 'Copper, green patina', {
  solid_texture: solid('noise', 0.06, [[0.14, 0.33, 0.27], [0.32, 0.5, 0.43], even(0)], { relief_m: 0.0003, seed: 11 }),
  roughness: 0.85,
  specular: 0.5
});
put('metal', 'Steel, weathering', {
  solid_texture: solid('noise', 0.05, [[0.16, 0.055, 0.025], [0.32, 0.13, 0.06], even(0)], {
    relief_m: 0.0004,
    seed: 13
  }),
  roughness: 0.9,
  specular: 0.4
});
put('metal', 'Steel, corrugated', {
  baseColor: opaque([0.5, 0.51, 0.52]),
  metallic: 1,
  roughness: 0.4,
  solid_texture: solid('ribs', 0.076, [even(0.8), even(1), even(0)], {
    relief_m: 0.016,
    roughness_change: 0,
    axis: 'y',
    seed: 22
  })
});
metal('Zinc sheet', [0.46, 0.47, 0.48], 0.45);

const body = (name: string, color: Vec3, distance_m: number, ior: number, roughness = 0) =>
  put('glass', name, {
    transmission: 1,
    solid: true,
    ior,
    roughness,
    attenuationColor: color,
    attenuationDistance: distance_m
  });
body('Glass, clear', [0.9, 0.97, 0.94], 0.3, 1.52);
body('Glass, smoked', [0.3, 0.3, 0.32], 0.03, 1.52);
body('Glass, amber', [0.85, 0.42, 0.08], 0.03, 1.52);
body('Glass, bottle green', [0.2, 0.5, 0.24], 0.03, 1.52);
body('Glass, blue', [0.2, 0.42, 0.75], 0.03, 1.52);
body('Glass, frosted', [0.92, 0.97, 0.95], 0.3, 1.52, 0.35);
put('glass', 'Glass, ribbed', {
  transmission: 1,
  solid: true,
  ior: 1.52,
  roughness: 0,
  attenuationColor: [0.9, 0.97, 0.94],
  attenuationDistance: 0.3,
  // upright, as panes are set
  solid_texture: solid('ribs', 0.014, [even(1), even(1), even(1)], {
    relief_m: 0.0022,
    roughness_change: 0,
    axis: 'y',
    seed: 5
  })
});
body('Water', [0.75, 0.92, 0.95], 2, 1.333);
// a surface with what lies under it, for water without a bottom
put('glass', 'Open water', {
  baseColor: opaque([0.012, 0.03, 0.034]),
  roughness: 0.02,
  ior: 1.333,
  solid_texture: solid('noise', 0.7, [even(1), even(1), even(1)], { relief_m: 0.045, roughness_change: 0, seed: 3 })
});
body('Acrylic, clear', [0.97, 0.98, 0.98], 0.5, 1.49);

const glazed = (name: string, color: Vec3) =>
  put('ceramic', name, {
    baseColor: opaque(color),
    roughness: 0.35,
    layers: layers({ coat: 0.9, coatRoughness: 0.05 })
  });
glazed('Porcelain, white', [0.78, 0.77, 0.74]);
glazed('Glaze, celadon', [0.36, 0.5, 0.42]);
glazed('Glaze, ink blue', [0.035, 0.07, 0.16]);
glazed('Glaze, black', [0.021, 0.021, 0.023]);
put('ceramic', 'Stoneware, speckled', {
  solid_texture: solid(
    'terrazzo',
    0.0028,
    [
      [0.37, 0.345, 0.31],
      [0.11, 0.095, 0.08],
      [0.46, 0.43, 0.385]
    ],
    { roughness_change: 0.05, seed: 17 }
  ),
  roughness: 0.55
});
put('ceramic', 'Terracotta', { baseColor: opaque([0.46, 0.19, 0.1]), roughness: 0.85, specular: 0.6 });

const plastic = (name: string, color: Vec3, roughness: number) =>
  put('plastic', name, { baseColor: opaque(color), roughness });
plastic('Plastic, white gloss', [0.78, 0.78, 0.77], 0.08);
plastic('Plastic, white matte', [0.76, 0.76, 0.75], 0.5);
plastic('Plastic, black gloss', even(0.02), 0.06);
plastic('Plastic, black matte', even(0.025), 0.5);
plastic('Plastic, red', [0.5, 0.03, 0.025], 0.2);
plastic('Plastic, yellow', [0.68, 0.44, 0.03], 0.2);
put('plastic', 'Rubber, black', { baseColor: opaque(even(0.022)), roughness: 0.85, specular: 0.5 });
put('plastic', 'Silicone, translucent', {
  baseColor: opaque([0.75, 0.74, 0.7]),
  roughness: 0.5,
  layers: layers({ diffuseTransmission: 0.45, diffuseTransmissionColor: [0.85, 0.83, 0.78] })
});

const paint = (name: string, color: Vec3, roughness: number) =>
  put('paint', name, { baseColor: opaque(color), roughness, specular: roughness > 0.8 ? 0.5 : 1 });
paint('Paint, white', [0.8, 0.79, 0.77], 0.9);
paint('Paint, light grey', even(0.5), 0.9);
paint('Paint, dark grey', even(0.1), 0.9);
paint('Paint, sage', [0.32, 0.38, 0.28], 0.9);
paint('Paint, night blue', [0.03, 0.05, 0.1], 0.9);
paint('Paint, ochre', [0.5, 0.31, 0.1], 0.9);
put('paint', 'Car paint, dark red', {
  baseColor: opaque([0.22, 0.012, 0.014]),
  metallic: 0.5,
  roughness: 0.35,
  layers: layers({ coat: 1, coatRoughness: 0.02 })
});
put('paint', 'Paper', {
  baseColor: opaque([0.82, 0.81, 0.78]),
  roughness: 0.95,
  specular: 0.4,
  layers: layers({ diffuseTransmission: 0.12, diffuseTransmissionColor: [0.9, 0.88, 0.82] })
});
paint('Cardboard', [0.42, 0.29, 0.17], 0.95);

/** Weft, warp and gaps. */
const woven = (name: string, colors: Colors, thread_mm: number, seed: number, sheen: Vec3) =>
  put('textile', name, {
    solid_texture: solid('cloth', thread_mm / 1000, colors, { relief_m: thread_mm / 3500, roughness_change: 0, seed }),
    roughness: 0.95,
    specular: 0.4,
    layers: layers({ sheenColor: sheen, sheenRoughness: 0.5 })
  });
woven(
  'Linen, natural',
  [
    [0.34, 0.31, 0.27],
    [0.5, 0.47, 0.42],
    [0.06, 0.055, 0.05]
  ],
  1.6,
  2,
  even(0.06)
);
woven('Cotton, white', [even(0.68), even(0.76), even(0.3)], 0.9, 4, even(0.05));
woven('Wool, charcoal', [even(0.05), even(0.085), even(0.015)], 2.2, 6, even(0.08));
woven(
  'Wool, moss',
  [
    [0.11, 0.14, 0.06],
    [0.18, 0.22, 0.1],
    [0.03, 0.035, 0.02]
  ],
  2.2,
  8,
  [0.06, 0.07, 0.04]
);
woven(
  'Cloth, rust',
  [
    [0.42, 0.18, 0.085],
    [0.55, 0.27, 0.14],
    [0.1, 0.05, 0.03]
  ],
  1.8,
  14,
  [0.08, 0.05, 0.03]
);
put('textile', 'Corduroy, olive', {
  solid_texture: solid('ribs', 0.0032, [[0.05, 0.055, 0.022], [0.13, 0.14, 0.06], even(0)], {
    relief_m: 0.0008,
    axis: 'y',
    seed: 21
  }),
  roughness: 1,
  specular: 0.3,
  layers: layers({ sheenColor: [0.14, 0.14, 0.09], sheenRoughness: 0.5 })
});
put('textile', 'Velvet, deep blue', {
  baseColor: opaque([0.02, 0.035, 0.09]),
  roughness: 1,
  specular: 0.2,
  layers: layers({ sheenColor: [0.25, 0.32, 0.55], sheenRoughness: 0.3 })
});
put('textile', 'Leather, tan', {
  solid_texture: solid('noise', 0.004, [[0.3, 0.15, 0.07], [0.36, 0.19, 0.09], even(0)], {
    relief_m: 0.0003,
    seed: 21
  }),
  roughness: 0.45
});
put('textile', 'Leather, black', {
  solid_texture: solid('noise', 0.004, [even(0.022), even(0.03), even(0)], { relief_m: 0.0003, seed: 22 }),
  roughness: 0.4
});

put('outdoors', 'Gravel', {
  solid_texture: solid(
    'terrazzo',
    0.018,
    [
      [0.3, 0.28, 0.26],
      [0.46, 0.44, 0.41],
      [0.2, 0.19, 0.18]
    ],
    { relief_m: 0.004, seed: 5 }
  ),
  roughness: 0.95,
  specular: 0.4
});
put('outdoors', 'Sand', {
  solid_texture: solid('noise', 0.2, [[0.46, 0.37, 0.25], [0.56, 0.46, 0.32], even(0)], { relief_m: 0.006, seed: 6 }),
  roughness: 1,
  specular: 0.3
});
put('outdoors', 'Earth', {
  solid_texture: solid('noise', 0.08, [[0.05, 0.034, 0.022], [0.11, 0.075, 0.05], even(0)], {
    relief_m: 0.008,
    seed: 7
  }),
  roughness: 1,
  specular: 0.3
});
put('outdoors', 'Asphalt', {
  solid_texture: solid('terrazzo', 0.006, [even(0.045), even(0.08), even(0.03)], { relief_m: 0.0008, seed: 8 }),
  roughness: 0.85,
  specular: 0.5
});
put('outdoors', 'Lawn', {
  solid_texture: solid('noise', 0.03, [[0.04, 0.085, 0.018], [0.085, 0.15, 0.035], even(0)], {
    relief_m: 0.012,
    seed: 9
  }),
  roughness: 1,
  specular: 0.3
});
put('outdoors', 'Leaves', {
  solid_texture: solid('noise', 0.05, [[0.05, 0.1, 0.022], [0.095, 0.165, 0.045], even(0)], {
    relief_m: 0.0006,
    seed: 11,
    variation: 0.8
  }),
  roughness: 0.5,
  layers: layers({ diffuseTransmission: 0.35, diffuseTransmissionColor: [0.35, 0.6, 0.12] })
});
put('outdoors', 'Slate roof', {
  solid_texture: solid(
    'brick',
    0.26,
    [
      [0.06, 0.065, 0.075],
      [0.115, 0.12, 0.13],
      [0.025, 0.027, 0.03]
    ],
    { relief_m: 0.005, seed: 13 }
  ),
  roughness: 0.5
});
put('outdoors', 'Roof tiles, clay', {
  solid_texture: solid(
    'brick',
    0.3,
    [
      [0.3, 0.1, 0.05],
      [0.4, 0.16, 0.085],
      [0.12, 0.05, 0.03]
    ],
    { relief_m: 0.008, seed: 10 }
  ),
  roughness: 0.8
});

export const MATERIAL_LIBRARY: readonly LibraryMaterial[] = out;

/** What a material looks like where its pattern cannot be drawn: its mean, linear. */
export function libraryColor({
  baseColor = [1, 1, 1, 1],
  solid_texture,
  attenuationColor
}: Partial<SceneMaterial>): Vec3 {
  const [r, g, b] = solid_texture ? meanColor(solid_texture) : (attenuationColor ?? [1, 1, 1]);
  return [baseColor[0] * r, baseColor[1] * g, baseColor[2] * b];
}

const byKey = new Map(out.map((entry) => [entry.key, entry]));
export const libraryMaterial = (key: string): LibraryMaterial | null => byKey.get(key) ?? null;
