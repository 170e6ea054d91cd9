// Where everything lies in the kernel's memory. Read by the AssemblyScript side and by the host, so each number stands
// once.
//
//   0x000000  reserved, never touched
// 0x010000  thread contexts, CONTEXT_BYTES each (two rays, weights of portals and lamps, the path's light by group, a
//   placed triangle, then the traversal stack)
//   0x3f0000  settings: camera, film, surroundings of this render (written by the host)
// 0x400000  scene pack: geometry, its trees, textures. Its pointers are absolute, so a pack is only valid at this
//   address; that
//             makes it loadable by one copy and shareable by all threads.
// behind it the rig: materials, lights, what a brief sets up round the model, and the tree over all; it begins with the
//   header that
//             then stands before the pack. Lamps, studio and materials change with it, while the pack stays as it is.
//   behind it surroundings data, then one tile buffer per thread
export const CONTEXTS = 0x10000;
export const CONTEXT_BYTES = 0x8000;
export const CONTEXT_PORTALS = 64;
export const CONTEXT_LAMPS = 384;
export const CONTEXT_LAYERS = 512; // of 16 groups
export const CONTEXT_AIDS = 704; // 14 numbers, see aovs.ts
export const CONTEXT_VERTICES = 768; // three, of a placed triangle, in world coordinates
export const CONTEXT_STACK = 1024;
export const MAX_THREADS = 64;

// A part of a tree that waits to be built, see build.ts.
export const PART_RECORD_BYTES = 80;
export const PART_BEGIN = 64;
export const PART_END = 68;
export const PART_PLACED = 12;
export const SETTINGS = 0x3f0000;
export const PACK = 0x400000;

// Header, 256 bytes of u32 unless said otherwise. A pack by itself has what the rig is made from; P_RIG says where that
// goes on.
export const PACK_MAGIC = 0x50485053; // "SPHP"
export const PACK_VERSION = 3;
export const PACK_HEADER_BYTES = 256;
export const P_MAGIC = 0;
export const P_VERSION = 4;
export const P_ROOT = 8; // BVH root code, 0 when there is no triangle
export const P_TRIANGLES = 12;
export const P_VERTICES_PTR = 16;
export const P_TRIANGLES_PTR = 20; // TRIANGLE_BYTES each; those of the rig go on in the rig, their numbers reckoned from here too
export const P_FIRST_PART = 24; // parts of placed objects stand before it, then those of the world's triangles
export const P_TRIANGLE_LIGHTS = 28; // how many of the lights, the first ones, are triangles, in the order of their triangles
export const P_MATERIALS_PTR = 32;
export const P_TEXTURES_PTR = 36;
export const P_LIGHTS_PTR = 40;
export const P_LIGHT_COUNT = 44;
export const P_LIGHT_NODES_PTR = 48; // tree over the lights
export const P_DIRECTIONAL_PTR = 52;
export const P_DIRECTIONAL_COUNT = 56;
export const P_SRGB_LUT_PTR = 60; // 256 f32
export const P_METAL_ALBEDO_PTR = 64; // ALBEDO_STEPS x ALBEDO_STEPS f32
export const P_BOUNDS = 68; // 6 f32: min, max in metres
export const P_BYTES = 92; // length of the pack without the rig
export const P_NODES = 104; // statistics of the BVH
export const P_BLOCKS = 108;
export const P_SHEEN_ALBEDO_PTR = 120; // ALBEDO_STEPS x ALBEDO_STEPS f32
export const P_PORTALS_PTR = 112;
export const P_PORTAL_COUNT = 116;
export const P_PARTS_PTR = 124;
export const P_PART_COUNT = 128; // in all
export const P_GROUND_LIGHTS_PTR = 132; // what of the set's lamps lights a ground, see ground.ts
export const P_GROUND_LIGHTS = 136;

// Triangle, 16 bytes of u32: three vertices, material.
export const TRIANGLE_BYTES = 16;
export const TRIANGLE_MATERIAL = 12;

// Part, 64 bytes: what has a name of its own, and the frame that solid textures are reckoned in. u32 first of its
// triangles (ascending in the world), pad, then at 16 the turn and move from the world to its own coordinates in
// metres: three columns and a translation.
export const PART_BYTES = 64;
export const PART_FRAME = 16;

// Something placed, 128 bytes: u32 kind, u32 root code of an object's tree, u32 light of a shape, u32 1 when it is
// mirrored, f32 the largest coordinate (m) that its points are reckoned from, u32 part, then at 32 the matrix to the
// world and at 80 its inverse, each three columns and a translation (12 f32).
export const PLACED_BYTES = 128;
export const PLACED_OBJECT = 0;
export const PLACED_RECTANGLE = 1;
export const PLACED_DISC = 2;
export const PLACED_SPHERE = 3;
export const PLACED_KIND = 0;
export const PLACED_ROOT = 4;
export const PLACED_LIGHT = 8;
export const PLACED_MIRRORED = 12;
export const PLACED_REACH = 16;
export const PLACED_PART = 20;
export const PLACED_MATRIX = 32;
export const PLACED_INVERSE = 80;

// Portals, four to a block: a triangle or parallelogram of clear sheet each, through which a room gets its light. Of
// each number, f32, those of the four stand together, 16 bytes: corner 3, edges 3 each, area, unit normal 3, the two
// vectors that give a point's coordinates along the edges by a dot product 3 each, 1 for a triangle and 2 for a
// parallelogram, and the middle 3. What fills up the last block is all zero.
export const PORTAL_BLOCK_BYTES = 368;
export const MAX_PORTALS = 64;
export const PORTAL_AREA = 144;
export const PORTAL_NORMAL = 160;
export const PORTAL_ALONG_A = 208;
export const PORTAL_ALONG_B = 256;
export const PORTAL_SHAPE = 304;
export const PORTAL_MIDDLE = 320;

// Vertex, 64 bytes: position, normal (f32x3 each), uv0, uv1 (f32x2), tangent (f32x4), colour (rgba16 linear).
export const VERTEX_BYTES = 64;
export const V_NORMAL = 12;
export const V_UV0 = 24;
export const V_UV1 = 32;
export const V_TANGENT = 40;
export const V_COLOR = 56;

// Material, 1024 bytes of f32 unless said otherwise; the texture slots stand at its end. What lies from
// M_SPECULAR_COLOR on counts only with FLAG_LAYERED, so that plain materials touch few cache lines.
export const MATERIAL_BYTES = 1024;
export const M_BASE = 0; // linear r, g, b, alpha
export const M_METALLIC = 16;
export const M_ROUGHNESS = 20;
export const M_IOR = 24;
export const M_TRANSMISSION = 28;
export const M_EMISSIVE = 32; // cd/m2, r g b
export const M_FLAGS = 44; // u32
export const M_SIGMA = 48; // attenuation inside, 1/m, r g b
export const M_ALPHA_CUTOFF = 60;
export const M_NORMAL_SCALE = 64;
export const M_SPECULAR = 72; // weight of the dielectric reflection; 0 is a pure Lambertian
export const M_GLASS_ALBEDO_PTR = 68; // u32, 0 when the material is not glass
export const M_SPECULAR_COLOR = 80; // r g b
export const M_ANISOTROPY = 92; // strength, then cosine and sine of its rotation
export const M_COAT = 104; // weight, roughness
export const M_SHEEN = 112; // r g b, roughness
export const M_IRIDESCENCE = 128; // weight, index, thickness min and max in nm
export const M_DISPERSION = 144; // 20 over the Abbe number
export const M_DIFFUSE_TRANSMISSION = 148; // weight, r g b
export const M_COAT_NORMAL_SCALE = 164;
export const M_GROUP = 168; // u32, of what it gives off
export const M_SOLID = 172; // u32, address of a solid texture or 0
export const M_SLOTS = 192;
// Slot, 48 bytes: i32 texture or -1, u32 uv set, u32 wrap (s | t << 8), pad, then f32: 2x3 uv transform, half the log2
// of its area.
export const SLOT_BYTES = 48;
export const SLOT_TRANSFORM = 16;
export const SLOT_LOG_SCALE = 40;
export const SLOT_BASE = 0;
export const SLOT_METAL_ROUGH = 1;
export const SLOT_NORMAL = 2;
export const SLOT_EMISSIVE = 3;
export const SLOT_TRANSMISSION = 4;
export const SLOT_SPECULAR = 5; // a
export const SLOT_SPECULAR_COLOR = 6; // rgb
export const SLOT_ANISOTROPY = 7; // rg direction, b strength
export const SLOT_COAT = 8; // r
export const SLOT_COAT_ROUGHNESS = 9; // g
export const SLOT_COAT_NORMAL = 10;
export const SLOT_SHEEN_COLOR = 11; // rgb
export const SLOT_SHEEN_ROUGHNESS = 12; // a
export const SLOT_IRIDESCENCE = 13; // r
export const SLOT_FILM_THICKNESS = 14; // g
export const SLOT_DIFFUSE_TRANSMISSION = 15; // a
export const SLOT_DIFFUSE_TRANSMISSION_COLOR = 16; // rgb
export const SLOTS = 17;
export const FLAG_TWO_SIDED = 1;
export const FLAG_ALPHA_MASK = 2;
export const FLAG_ALPHA_BLEND = 4;
export const FLAG_SOLID = 8; // has a volume: refracts; else transmission is a thin sheet
export const FLAG_TRANSPARENT = 16; // shadow rays may pass: alpha, or a smooth thin sheet
export const FLAG_EMISSIVE = 32;
export const FLAG_LAYERED = 64; // has more than base, metal and glass
export const FLAG_OPEN_BACK = 512; // has a front alone: the camera may look through its back
export const FLAG_UNSEEN = 1024; // the camera looks through it
export const FLAG_UNMIRRORED = 2048; // with FLAG_UNSEEN: mirrors and glass do not show it either
export const FLAG_TEXTURED = 256; // has a texture in any slot
export const FLAG_PLAIN = 128; // its base colour is not tinted: by no vertex, nor by a texture that cuts holes
export const WRAP_REPEAT = 0;
export const WRAP_CLAMP = 1;
export const WRAP_MIRROR = 2;
/** Repeats, but each patch of it is taken from another place of the texture. */
export const WRAP_BROKEN = 3;

// Solid texture, 96 bytes: u32 kind, u32 seed, f32 1/m of its size, f32 relief over size, f32 change of roughness, u32
// axis that its grain follows (0 x, 1 y, 2 z), f32 how much parts differ (0 to 1), pad, then at 32 three colours, linear
// r g b each.
export const SOLID_BYTES = 96;
export const SOLID_KIND = 0;
export const SOLID_SEED = 4;
export const SOLID_PER_METRE = 8;
export const SOLID_RELIEF = 12;
export const SOLID_ROUGH = 16;
export const SOLID_AXIS = 20;
export const SOLID_VARIATION = 24;
export const SOLID_COLORS = 32;
export const SOLID_NOISE = 0;
export const SOLID_WOOD = 1;
export const SOLID_STONE = 2;
export const SOLID_CONCRETE = 3;
export const SOLID_BRICK = 4;
export const SOLID_TERRAZZO = 5;
export const SOLID_CLOTH = 6;
export const SOLID_BOARDS = 7;
export const SOLID_HERRINGBONE = 8;
export const SOLID_RIBS = 9;

export const PROJECTION_PARALLEL = 1;
export const PROJECTION_PANORAMA = 2;

// Below this roughness a thin sheet of glass counts as clear: light passes it in a straight line, shadow rays too.
export const CLEAR_ROUGHNESS = 0.03;

// Texture, 96 bytes: u32 width, height, levels, srgb; then up to 15 pointers to rgba8 levels; last f32 half the log2 of
// its texels.
export const TEXTURE_BYTES = 96;
export const TEXTURE_MAX_LEVELS = 15;
export const T_LEVELS = 16;
export const T_LOG_TEXELS = 92;

// Light, 96 bytes: u32 kind, u32 triangle (of a shape the address of what is placed), u32 group, f32 area, then f32
//   of a triangle: corner 3, its two edges from there 3 each (copied, so that choosing a light touches one cache line);
// of a point, spot or web: position 3, intensity 3 (of a web what its candela are multiplied by), axis 3, then of a
//   spot cos outer
//   and 1/(cos inner - cos outer), of a web u32 its table and the direction of its plane C0 3;
//   of a shape: middle 3, half edges 3 each, its front 3, its area or the radius of a sphere, its radiance 3.
export const LIGHT_BYTES = 96;
export const LIGHT_TRIANGLE = 0;
export const LIGHT_POINT = 1;
export const LIGHT_SPOT = 2;
export const LIGHT_WEB = 3;
export const LIGHT_SHAPE = 4; // 3 plus a PLACED_ kind
export const L_KIND = 0;
export const L_TRIANGLE = 4;
export const L_PLACED = 4;
export const L_GROUP = 8;
export const L_AREA = 12;
export const L_POSITION = 16;
export const L_INTENSITY = 28; // cd for points and spots
export const L_EDGE1 = 28;
export const L_EDGE2 = 40;
export const L_AXIS = 52;
export const L_COS_OUTER = 64;
export const L_CONE_SCALE = 68;
export const L_RADIUS = 64;
export const L_WEB = 40;
export const L_PLANE = 64;
export const L_RADIANCE = 76;
export const L_LEAF = 88; // u32: 4 times its node in the tree plus its place there, or NO_NODE
export const NO_NODE = 0xffffffff;
// Photometric web: u32 planes over a full turn, u32 angles, pad, then f32 candela, plane by plane; 1 plane when it is
// the same all about.
export const WEB_PLANES = 0; // the first repeated at the end
export const WEB_ANGLES = 4; // over 0 to 180 degrees from the axis
export const WEB_CANDELA = 16;
// Node of the tree over the lights, 256 bytes: of its four children, each value for all four together (f32x4): middle
// x, y, z, radius, axis x, y, z, strength (0: no child), cosine and sine of the spread, cosine of the end of the cone,
// 1 where light falls with the cosine; then four u32 child codes (node, or LIGHT_LEAF and the light), and the u32 code
// of the node's own place as in L_LEAF.
export const LIGHT_NODE_BYTES = 256;
export const N_RADIUS = 48;
export const N_AXIS = 64;
export const N_STRENGTH = 112;
export const N_COS_SPREAD = 128;
export const N_SIN_SPREAD = 144;
export const N_COS_END = 160;
export const N_FALLS = 176;
export const N_CHILDREN = 192;
export const N_PLACE = 208;
export const LIGHT_LEAF = 0x80000000;
// Directional light, 32 bytes: f32 direction towards the light 3, illuminance in lx 3, u32 group.
export const DIRECTIONAL_BYTES = 32;
export const D_GROUP = 24;

// Lamp of the set as a ground sees it, 96 bytes: radiance 3 f32, u32 corners, its front 3 f32 and where its plane lies
// along that, then up to five corners in turn, what lies below the ground cut off.
export const GROUND_LIGHT_BYTES = 96;
export const G_RADIANCE = 0;
export const G_COUNT = 12;
export const G_AXIS = 16;
export const G_LIMIT = 28;
export const G_CORNERS = 32;
export const MAX_CORNERS = 5;

// Tables of how much a rough surface returns in one scattering, over roughness and the root of the cosine.
export const ALBEDO_STEPS = 32;
export const GLASS_ROUGH_STEPS = 32; // a glass table holds [outside, inside][roughness][cosine]

// Settings
export const S_WIDTH = 0; // u32 px
export const S_HEIGHT = 4;
export const S_PROJECTION = 8; // u32: 0 perspective, PROJECTION_PARALLEL or PROJECTION_PANORAMA
export const S_BOUNCES = 12; // u32
export const S_EYE = 16; // f32 x3, m
export const S_RIGHT = 28;
export const S_UP = 40;
export const S_FORWARD = 52;
export const S_HALF_WIDTH = 64; // of the image plane at distance 1, in metres when parallel, in radians of a panorama
export const S_HALF_HEIGHT = 68;
export const S_SHIFT_X = 72; // in half widths
export const S_SHIFT_Y = 76;
export const S_LENS_RADIUS = 80; // m, 0 for a pinhole
export const S_FOCUS = 84; // m
export const S_FIREFLY = 88; // largest luminance of one indirect contribution, cd/m2; 0 for none
export const S_ENV_KIND = 96; // u32
export const S_ENV_PTR = 100; // rgb f32
export const S_ENV_WIDTH = 104;
export const S_ENV_HEIGHT = 108;
export const S_ENV_SCALE = 112; // f32
export const S_ENV_COS = 116; // rotation about +Y
export const S_ENV_SIN = 120;
// Importance grid. A cell: f32 density per solid angle, f32 alias threshold, u32 alias, f32 rgb mean (negative where the
// cell is not uniform). Behind the cells: the cosines between the rows, from +Y down, f32.
export const S_GRID_PTR = 124;
export const GRID_CELL_BYTES = 24;
export const GRID_MEAN = 12;
export const S_GRID_WIDTH = 128;
export const S_GRID_HEIGHT = 132;
export const S_SUN = 136; // u32: is there one
export const S_SUN_DIRECTION = 140; // f32 x3 towards it
export const S_SUN_RADIANCE = 152; // f32 x3, cd/m2
export const S_SUN_COS = 164; // cosine of its angular radius, as 1 - cos
export const S_EVEN = 168; // f32 x3 radiance
export const S_SEED = 180; // u32
export const S_PORTALS = 184; // u32: the camera stands in a room lit through portals
export const S_DIFFUSE = 188; // u32: scatterings of a kind that a path may have before its last one, or NO_LIMIT
export const S_GLOSS = 192;
export const S_GLASS = 196;
export const S_TRANSPARENT_BOUNCES = 200; // u32: transparent surfaces that a path may pass
export const S_GLOW = 204; // u32: glowing surfaces light the scene
export const NO_LIMIT = 1000000;
export const S_LAYERS = 208; // u32: light groups that have a layer each; 0 for no layers
export const S_AOVS = 212; // u32: masks, depth and light studies are kept
export const S_WITHOUT = 216; // u32, for the bench: what is left out, WITHOUT_ bits
export const WITHOUT_LIGHT_TREE = 1; // lamps are chosen by their strength alone
export const WITHOUT_LOW_DISCREPANCY = 2; // random points
export const S_AMBIENT_OCCLUSION = 220; // f32, m: how far ambientOcclusion looks
export const GROUP_SURROUNDINGS = 0;
export const GROUP_SUN = 1;
export const S_GROUND = 224; // u32: is there one
export const S_GROUND_HEIGHT = 228; // f32, m
export const S_GROUND_MIDDLE = 232; // f32 x and z that it fades from
export const S_GROUND_FADE = 240; // f32 m from there: where fading begins and ends
export const S_GROUND_POLISH = 248; // f32 share mirrored at normal incidence
export const S_GROUND_ROUGHNESS = 252; // f32
export const S_GROUND_IRRADIANCE = 256; // f32 x3, lx of the surroundings and the sun on it
export const S_DISC_LIMB = 272; // f32 x3: how the edge of the sun's disc darkens; S_SUN_RADIANCE is that of its middle
export const S_MOON = 284; // u32: the disc is the moon's
export const S_MOON_SIDE = 288; // f32 x3 across the sky towards its lit edge
export const S_MOON_COS = 300; // f32 cosine of its phase angle
export const S_STARS = 304; // f32 of their true brightness; 0 for none
export const S_STARS_AXES = 308; // f32 x9: axes of the sky's own coordinates in the world
export const S_STARS_CLEAR = 344; // u32 address of what clouds leave of them, a byte a texel of the image; 0 for no clouds
export const S_UNMIRRORED = 348; // u32: mirrors and gloss do not show the surroundings, which light all the same
export const S_ENV_LEVELS = 352; // u32: halved copies of the image behind it, finest first
export const S_CONTRIBUTION_THRESHOLD = 356; // f32 cd/m2: contributions below it get their shadow ray only sometimes; 0 for always
export const S_SKY_BELOW_THRESHOLD = 360; // u32: no part of the surroundings is brighter than that; no light rays look for them
export const S_GRID_DENSITY = 364; // f32: light scattered with no more than this density (per solid angle) sees the mean of an even cell
export const S_OPEN_BACKS = 368; // u32: the camera looks through the backs of what is FLAG_OPEN_BACK
// f32 x4: unit normal of a plane and its distance; the camera looks through what lies on its side of it; 0 for none
export const S_SECTION = 372;
export const S_FILTER_TABLE = 512; // FILTER_STEPS + 1 f32: inverse distribution of the pixel filter, px
export const FILTER_STEPS = 256;
export const ENV_NONE = 0;
export const ENV_EVEN = 1;
export const ENV_IMAGE = 2;

// Tile buffer: FILM_CHANNELS f32 a pixel, row by row, every one a sum over the pixel's samples.
//   0..2 the even samples, 3..5 the odd ones (two independent halves), 6..8 the part that comes straight from the
//   surroundings, 9 the share of samples that ended there unscattered; features for the denoiser, see path.ts: 10..12
//   reflectance, 13..15 normal. Behind all pixels, when there are layers, three f32 a group and pixel, then with
// aovs AOV_LAYERS times three f32 more: direct light, light by way of gloss, by way of glass (rgb each), ambientOcclusion,
//   depth in m, samples
// that met a surface, four pairs of object id and its samples, four of material id; ids count from 1, 0 is an empty
//   place.
export const TILE = 64;
export const FILM_CHANNELS = 16;
export const AOV_LAYERS = 10;
export const AOV_OBJECTS = 12; // f32 index
export const AOV_MATERIALS = 20;
export const ID_PLACES = 4;
