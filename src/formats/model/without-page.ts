/**
 * Loaders of three.js are written for a page. Here they find a parser of XML, and instead of pictures that a page would
 * decode the addresses of those; nothing is fetched. What was changed for them is put back afterwards.
 */
import { DOMParser } from 'linkedom';
import { ImageLoader, Texture } from 'three';
import { TGALoader } from 'three/examples/jsm/loaders/TGALoader.js';

/** What stands in a texture where a page would have its picture. */
export interface PictureAddress {
  address: string;
}

export interface Loaded<T> {
  value: T;
  /** Bytes of a picture that the loader had in hand; null for one that it knows by name alone. */
  bytesOf(address: string): Promise<Uint8Array | null>;
}

export async function withoutPage<T>(load: () => T | Promise<T>): Promise<Loaded<T>> {
  const kept: Blob[] = [];
  const place = globalThis as { DOMParser?: unknown };
  const before = { parser: place.DOMParser, image: ImageLoader.prototype.load, tga: TGALoader.prototype.load };
  // what a loader thinks of a file is told by the report, in our words
  const warn = console.warn;
  console.warn = () => {};
  const urls = { create: URL.createObjectURL, revoke: URL.revokeObjectURL };
  place.DOMParser = DOMParser;
  URL.createObjectURL = (blob) => `kept:${kept.push(blob as Blob) - 1}`;
  URL.revokeObjectURL = () => {};
  ImageLoader.prototype.load = function (url, onLoad) {
    const picture = { address: `${this.path ?? ''}${url}` } as unknown as HTMLImageElement;
    onLoad?.(picture);
    return picture;
  };
  TGALoader.prototype.load = (url: string) => {
    const texture = new Texture();
    texture.image = { address: url } as never;
    return texture as never;
  };
  try {
    const value = await load();
    return {
      value,
      async bytesOf(address) {
        const blob = address.startsWith('kept:') ? kept[Number(address.slice(5))] : undefined;
        return blob ? new Uint8Array(await blob.arrayBuffer()) : null;
      }
    };
  } finally {
    console.warn = warn;
    place.DOMParser = before.parser;
    ImageLoader.prototype.load = before.image;
    TGALoader.prototype.load = before.tga;
    Object.assign(URL, { createObjectURL: urls.create, revokeObjectURL: urls.revoke });
  }
}
