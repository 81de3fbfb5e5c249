/** Seeded randomness: one stream for each use, so that adding a sensor does not change what the others draw. */
import { randomNormal } from 'd3-random';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

export type Source = ReturnType<typeof xoroshiro128plus>;

/** The stream of this name under this seed. */
export function stream(seed: number, name: string): Source {
  let hash = Math.imul(seed | 0, 0x9e3779b1) ^ 0x811c9dc5;
  for (let i = 0; i < name.length; i++) hash = Math.imul(hash ^ name.charCodeAt(i), 16777619);
  return xoroshiro128plus(hash | 0);
}
/** Uniform in [0, 1), 32 bits of it. */
export const uniform = (source: Source): number => (source.next() >>> 0) / 4294967296;
/** A whole number, both ends included. */
export const wholeBetween = (source: Source, from: number, to: number): number => uniformInt(source, from, to);
/** Normal values with mean 0 and standard deviation 1 (polar method of d3-random). */
export function normals(seed: number, name: string): () => number {
  const source = stream(seed, name);
  return randomNormal.source(() => uniform(source))(0, 1);
}
