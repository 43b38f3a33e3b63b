import { done, type Result } from '@/core/basics';
import { z } from '@/core/schema';
import type { MapPlace } from '@/core/derive';
import { readWorldFile } from '@/core/formats';
import { askService, fetchPicture } from '@/store';

const PLACE = '/service/parcels';
const Found = z.object({ parcels: z.array(z.object({ id: z.string(), address: z.string() })) });
const Answer = z.object({
  address: z.string(),
  projection: z.string().startsWith('+proj='),
  picture: z.string().startsWith('/'),
  world: z.string(),
  boundary: z.object({ type: z.string() }).loose(),
});

/** A parcel: its boundary as a GeoJSON file, its aerial picture, and where that lies on the map. */
export interface Parcel {
  readonly address: string;
  readonly boundary: ArrayBuffer;
  readonly picture: File;
  readonly place: MapPlace;
}

export async function findParcels(
  address: string,
): Promise<Result<readonly { readonly id: string; readonly address: string }[]>> {
  const found = await askService(`${PLACE}?address=${encodeURIComponent(address)}`, Found);
  return found.ok ? done(found.value.parcels) : found;
}

export async function fetchParcel(id: string): Promise<Result<Parcel>> {
  const answer = await askService(`${PLACE}/${encodeURIComponent(id)}`, Answer);
  if (!answer.ok) return answer;
  const { address, projection, picture, world, boundary } = answer.value;
  const map = readWorldFile(world);
  if (!map.ok) return map;
  const file = await fetchPicture(picture, `${address}.jpg`);
  if (!file.ok) return file;
  const bytes = new TextEncoder().encode(JSON.stringify(boundary)).buffer as ArrayBuffer;
  return done({ address, boundary: bytes, picture: file.value, place: { map: map.value, projection } });
}
