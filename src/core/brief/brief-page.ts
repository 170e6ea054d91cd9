/** The page docs/brief.md, made from the definitions of the brief's fields: `npm run docs` writes it. */
import { BRIEF, BRIEF_VERSION } from './fields/brief-fields';
import { documentFields, exampleOf } from './fields/document';
import { READ_VERSIONS } from './migrate';

export const briefPage = (): string => `# The brief, version ${BRIEF_VERSION}

<!-- Made by \`npm run docs\` from src/core/brief/fields. Change it there. -->

One JSON document that decides a picture. \`version\` is required; every other section may be left out and then has the
default shown. An unknown field or a value out of range is refused by its name, with the allowed range. Lengths are metres,
light is cd/m², lux and candela, colours are linear Rec. 709. Briefs of the versions ${READ_VERSIONS.join(' and ')} are read.

The column "decides" says what a change needs: a new \`film\` (a render), a new \`finish\` (the film is developed again), or
nothing.

\`\`\`json
${exampleOf(BRIEF)}
\`\`\`

${documentFields(BRIEF)}

## What comes out

The film is scene-referred, linear Rec. 709, in cd/m², untouched by the finish. OpenEXR holds it so (\`whiteLuminance\` 1);
\`uniform\` surroundings of luminance 1 give 1 where nothing stands before them. PNG and JPEG are developed: exposure, tone
curve, sRGB, with density and profile in the file. With a transparent background the shadow and the reflection of a ground
stay, half transparent.

The report of \`sphaera render\` holds \`width_px\`, \`height_px\`, \`samples\` (mean), \`grain\`, \`seconds\`, \`rays\`,
\`threads\`, \`ev100\`, \`triangles\` and \`film_sha256\`, which is the same for the same model and brief whatever the threads,
and does not depend on the finish.

## Versions

Version 1 had other names: \`quality.least\` is \`min_samples\`, \`diffuse\` \`diffuse_bounces\`, \`gloss\` \`specular_bounces\`,
\`glass\` \`transmission_bounces\`, \`passes\` \`transparent_bounces\`, \`glow\` \`emissive_lights\`, \`aids\` \`aovs\`; surroundings
of the kind \`even\` are \`uniform\`, and a sky's \`heaps\` are \`cumulus\`.
`;
