/** The demo's models, in the order in which the desk shows them. */
export { hut } from './hut';
export { perihelionLamp } from './perihelion-lamp';
export { readingRoom } from './reading-room';
