import { demoMade } from '../../scripts/demo-made.mjs';

/** The browser tests begin when the demo's pictures are there. */
export default (config) => demoMade(config.projects[0].use.baseURL);
