import { describe, expect, it } from 'vitest';
import { boxGlb } from '../../../tests/support/glb';
import { formatsText, modelExtensions, READERS, recognise } from './index';
import { examine } from './recognition';

const MAX_BYTES = 2 ** 30;
const file = (name: string, bytes: Uint8Array | string) => ({
  name,
  bytes: typeof bytes === 'string' ? new TextEncoder().encode(bytes) : bytes
});

describe('the catalogue of model readers', () => {
  it('names its formats once, for choosers and for messages', () => {
    for (const { label, extensions } of READERS) {
      expect(formatsText()).toContain(label);
      for (const extension of extensions) expect(modelExtensions()).toContain(extension);
    }
    expect(new Set(READERS.map((r) => r.key)).size).toBe(READERS.length);
  });
  it('finds the model among files that came together, by its bytes before its name', async () => {
    const glb = await boxGlb();
    const found = recognise([file('notes.txt', 'hello'), file('box.bin', glb)], MAX_BYTES);
    expect([found.reader.key, found.main.name]).toEqual(['gltf', 'box.bin']);
    expect(() => recognise([file('a.txt', 'x'), file('b.txt', 'y')], MAX_BYTES)).toThrow(
      /no model among these files \(a\.txt, b\.txt\)/
    );
    expect(() => recognise([file('plan.svg', '<svg/>')], MAX_BYTES)).toThrow(
      /cannot be read as a model; export it as glTF/
    );
  });
});

describe('what is asked before a model is brought in', () => {
  const asked = async (size: number) => examine(recognise([file('box.glb', await boxGlb({ size }))], MAX_BYTES));
  it('is nothing where the file states its unit and its size can be', async () => {
    expect(await asked(0.4)).toMatchObject({
      format: 'GLB',
      source: 'box.glb',
      asks: [],
      guess: { unit: 'm', up: 'y' }
    });
  });
  it('is unit and axis where the size cannot be right, with a guess', async () => {
    const found = await asked(743);
    expect(found.asks).toEqual(['unit', 'up']);
    expect(found.guess).toEqual({ unit: 'mm', up: 'y' });
    expect(Math.max(...found.size!)).toBeCloseTo(743, 3);
  });
});
