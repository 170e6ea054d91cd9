/** Our own denoising filter with its levels done by the kernel, in a memory of its own. */
import type { Filter } from '../../core/finishing/denoise/filter';
import { createGuidedFilter, ERRORS, LIGHT, LONE, LONE_EASE, type Smoother } from '../../core/finishing/denoise/guided';
import { createMemory, instantiate, type KernelExports, PACK_AT } from './kernel';

export const guidedFilter = (module: WebAssembly.Module): Filter => createGuidedFilter(new KernelSmoother(module));

const SLOTS = 3;
// of a call, see assembly/smooth.ts
const ROWS = 8;

class KernelSmoother implements Smoother {
  private memory: WebAssembly.Memory | null = null;
  private kernel: KernelExports | null = null;
  private width = 0;
  private height = 0;

  constructor(private readonly module: WebAssembly.Module) {}

  begin(light: Float32Array, guides: Float32Array, width: number, height: number): void {
    [this.width, this.height] = [width, height];
    const bytes = this.slot(SLOTS) + guides.byteLength;
    if (!this.memory || this.memory.buffer.byteLength < bytes) {
      this.memory = createMemory(bytes);
      this.kernel = instantiate(this.module, this.memory, 0);
    }
    new Float32Array(this.memory.buffer).set(light, this.slot(0) / 4);
    new Float32Array(this.memory.buffer).set(guides, this.slot(SLOTS) / 4);
  }

  smooth(from: number, known: number | null, to: number, step: number, radius: number): void {
    const { width, height } = this;
    const by = known === null ? 0 : this.slot(known);
    this.kernel!.compareBy(by, this.slot(SLOTS), width * height);
    for (let row = 0; row < height; row += ROWS) this.kernel!.smoothRows(this.slot(from), by, this.slot(SLOTS), this.slot(to), width, height, row, Math.min(height, row + ROWS), step, radius, ERRORS, LONE, LONE_EASE);
  }

  read(slot: number): Float32Array {
    return new Float32Array(this.memory!.buffer, this.slot(slot), this.width * this.height * LIGHT);
  }

  /** Address of a slot; the guides lie behind the last. */
  private slot(slot: number): number {
    return PACK_AT + slot * this.width * this.height * LIGHT * 4;
  }
}
