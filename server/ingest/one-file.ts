import type { Asset } from './assets';

/** A snapshot as one HTML file that needs nothing beside it: every `asset/HASH` becomes a data address. */
export function oneFile(snapshot: string, assets: readonly Asset[]): string {
  const byHash = new Map(assets.map((asset) => [asset.hash, asset]));
  return snapshot.replace(/asset\/([0-9a-f]{64})/g, (whole, hash: string) => {
    const asset = byHash.get(hash);
    return asset ? `data:${asset.mediaType};base64,${Buffer.from(asset.bytes).toString('base64')}` : whole;
  });
}
