/** Our own denoising filter with its steps done by the kernel, in a memory of its own. */
import type { Filter } from '../../core/finishing/denoise/filter';
import {
  BLIND_SPECK,
  createGuidedFilter,
  ERRORS,
  GUIDES,
  type GuidedSteps,
  MIN_REFLECTANCE,
  LIGHT,
  LONE,
  LONE_EASE,
  NORMAL_SCALE,
  REFLECTANCE_SCALE,
  type Slot,
  SPECK
} from '../../core/finishing/denoise/guided';
import { createMemory, instantiate, type KernelExports, PACK_AT } from './kernel';

/** `between`: awaited before every level; a run ends with what it throws. */
export const guidedFilter = (module: WebAssembly.Module, between?: () => Promise<void>): Filter =>
  createGuidedFilter(new KernelSteps(module), between);

const SLOTS = 3;
// of a call: V8 goes over to its better code only between calls
const ROWS = 8;
const SLACK_BYTES = 128; // see assembly/smooth.ts
const COLOUR = 3;

class KernelSteps implements GuidedSteps {
  private memory: WebAssembly.Memory | null = null;
  private kernel: KernelExports | null = null;
  private width = 0;
  private height = 0;

  constructor(private readonly module: WebAssembly.Module) {}

  prepare(planes: Float32Array, width: number, height: number, blind: boolean): void {
    [this.width, this.height] = [width, height];
    const plane = width * height;
    const guides = this.slot(SLOTS);
    const bytes = guides + (GUIDES + 1) * plane * 4 + SLACK_BYTES;
    if (!this.memory || this.memory.buffer.byteLength < bytes) {
      this.memory = createMemory(bytes);
      this.kernel = instantiate(this.module, this.memory, 0);
    }
    const kernel = this.kernel!;
    const light = this.slot(0);
    const put = (at: number, from: number, to: number) =>
      new Float32Array(this.memory!.buffer).set(planes.subarray(from * plane, to * plane), at / 4);
    put(light, 0, COLOUR);
    put(guides, COLOUR, COLOUR + GUIDES);
    const errors = light + COLOUR * plane * 4;
    put(errors, COLOUR + GUIDES, COLOUR + GUIDES + 1);
    this.byRows((from, to) =>
      kernel.divideLight(
        light,
        guides,
        plane * 4,
        from * width * 4,
        to * width * 4,
        blind,
        MIN_REFLECTANCE,
        REFLECTANCE_SCALE,
        NORMAL_SCALE
      )
    );
    const luminances = guides + GUIDES * plane * 4;
    kernel.compareBy(light, guides, plane);
    this.byRows((from, to) =>
      kernel.despeckleRows(light, luminances, width, height, from, to, blind ? BLIND_SPECK : SPECK)
    );
    if (blind) kernel.compareBy(light, guides, plane);
    // the other slots are free until the first level
    const means = this.slot(1);
    const squares = blind ? means + plane * 8 : 0;
    const values = blind ? luminances : errors;
    this.byRows((from, to) => kernel.meanRows(values, means, width, from, to, false));
    if (blind) this.byRows((from, to) => kernel.meanRows(values, squares, width, from, to, true));
    this.byRows((from, to) => kernel.errorRows(errors, means, squares, width, height, from, to));
    if (!blind) return;
    const between = this.slot(1);
    this.byRows((from, to) => kernel.blurRows(guides, between, width, height, from, to, 1));
    this.byRows((from, to) => kernel.blurRows(between, guides, width, height, from, to, width));
  }

  smooth(from: Slot, known: Slot | null, to: Slot, step: number, radius: number): void {
    const { width, height } = this;
    const by = known === null ? 0 : this.slot(known);
    const guides = this.slot(SLOTS);
    this.kernel!.compareBy(by, guides, width * height);
    this.byRows((top, bottom) =>
      this.kernel!.smoothRows(
        this.slot(from),
        by,
        guides,
        this.slot(to),
        width,
        height,
        top,
        bottom,
        step,
        radius,
        ERRORS,
        LONE,
        LONE_EASE
      )
    );
  }

  finish(slot: Slot): Float32Array {
    const floats = COLOUR * this.width * this.height;
    this.kernel!.multiplyLight(this.slot(slot), this.slot(SLOTS), 0, floats * 4, REFLECTANCE_SCALE);
    return new Float32Array(this.memory!.buffer, this.slot(slot), floats).slice();
  }

  private byRows(act: (from: number, to: number) => void): void {
    for (let row = 0; row < this.height; row += ROWS) act(row, Math.min(this.height, row + ROWS));
  }

  /** Address of a slot; the guides lie behind the last, with room for a luminance. */
  private slot(slot: number): number {
    return PACK_AT + SLACK_BYTES + slot * this.width * this.height * LIGHT * 4;
  }
}
