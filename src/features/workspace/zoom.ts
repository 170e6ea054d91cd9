/** How large the sheet is shown: all of it, at its true size, or a pixel of it to one of the screen's. */
export type Zoom = 'whole' | 'true' | 'pixel';
