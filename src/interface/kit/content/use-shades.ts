'use client';

import { useEffect, useState } from 'react';

/** Main colours of pictures, by address; null for a picture that couldn't be read. */
const known = new Map<string, Promise<string | null>>();

/** A few pixels are enough for a colour. */
const SIDE = 8;

/** The colour of a picture on the whole, those of its parts that have colour counting more than grey ones; as CSS has it. */
async function shadeOf(address: string): Promise<string | null> {
  const image = new Image(SIDE, SIDE);
  image.src = address;
  try {
    await image.decode();
  } catch {
    return null;
  }
  const canvas = new OffscreenCanvas(SIDE, SIDE).getContext('2d');
  if (!canvas) return null;
  canvas.drawImage(image, 0, 0, SIDE, SIDE);
  return meanColour(canvas.getImageData(0, 0, SIDE, SIDE).data);
}

/** The mean of RGBA bytes, weighted by how colourful each pixel is. */
export function meanColour(bytes: ArrayLike<number>): string {
  const sum = [0, 0, 0];
  let weights = 0;
  for (let i = 0; i + 3 < bytes.length; i += 4) {
    const rgb = [bytes[i] ?? 0, bytes[i + 1] ?? 0, bytes[i + 2] ?? 0];
    const weight = 8 + Math.max(...rgb) - Math.min(...rgb);
    weights += weight;
    rgb.forEach((value, k) => (sum[k] = (sum[k] ?? 0) + value * weight));
  }
  return `rgb(${sum.map((value) => Math.round(value / Math.max(1, weights))).join(' ')})`;
}

/** Colours of pictures by their addresses, as they become known. */
export function useShades(addresses: readonly (string | undefined)[]): ReadonlyMap<string, string> {
  const [shades, setShades] = useState<ReadonlyMap<string, string>>(new Map());
  const wanted = [...new Set(addresses.filter((one) => one !== undefined))].sort();
  const key = wanted.join('\n');
  useEffect(() => {
    let here = true;
    const asked = key === '' ? [] : key.split('\n');
    for (const address of asked) if (!known.has(address)) known.set(address, shadeOf(address));
    void Promise.all(asked.map(async (address) => [address, await known.get(address)] as const)).then((found) => {
      if (here) setShades(new Map(found.flatMap(([address, shade]) => (shade ? [[address, shade]] : []))));
    });
    return () => {
      here = false;
    };
  }, [key]);
  return shades;
}
