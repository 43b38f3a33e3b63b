import { Router } from 'express';
import jpeg from 'jpeg-js';
import proj4 from 'proj4';
import { ORCHARD, paintAerial, PIXEL } from '../../demo/scenes/orchard';

/** The land register's own map, as projection libraries write it; its aerial pictures lie on it. */
const MAP = '+proj=utm +zone=32 +ellps=GRS80 +towgs84=0,0,0,0,0,0,0 +units=m +no_defs';
/** Where the invented orchard lies on that map, metres. */
const ZERO = [523_400, 5_391_200] as const;

/** Addresses that behave like a service on a bad day: for whoever tries what the app does then. */
const PARCELS = [
  { id: 'orchard', address: '7 Medlar Lane', behaves: 'well' },
  { id: 'slow', address: '9 Snail Walk', behaves: 'slow' },
  { id: 'nonsense', address: '11 Riddle Row', behaves: 'nonsense' },
] as const;

const SLOW_MS = 6000;
const toLonLat = ([x, y]: readonly [number, number]) =>
  proj4(MAP, 'EPSG:4326', [ZERO[0] + x / 1000, ZERO[1] + y / 1000]).map((value) => Number(value.toFixed(9)));

/**
 * A land register: finds a parcel by its address and gives its boundary (GeoJSON, RFC 7946: longitude and latitude) and an aerial picture with a world file on the register's own map.
 *
 * GET /?address=        { parcels: [{ id, address }] }
 * GET /:id              { address, boundary, picture, world, projection }
 * GET /:id/picture
 */
export function parcels(): Router {
  const router = Router();
  router.get('/', ({ query }, response) => {
    const wanted = String(query.address ?? '')
      .trim()
      .toLowerCase();
    response.json({
      parcels: PARCELS.filter(({ address }) => wanted !== '' && address.toLowerCase().includes(wanted)).map(
        ({ id, address }) => ({ id, address }),
      ),
    });
  });
  router.get('/:id', async ({ params }, response) => {
    const parcel = PARCELS.find(({ id }) => id === params.id);
    if (!parcel) return void response.status(404).json({ code: 'parcel-unknown' });
    if (parcel.behaves === 'slow') await new Promise((resolve) => setTimeout(resolve, SLOW_MS));
    if (parcel.behaves === 'nonsense')
      return void response.type('json').send('{"address": 11, "boundary": "around the pond"');
    const [x, y] = [ZERO[0] + ORCHARD.picture.left / 1000, ZERO[1] + ORCHARD.picture.top / 1000];
    response.json({
      address: parcel.address,
      projection: MAP,
      picture: `/service/parcels/${parcel.id}/picture`,
      world: [PIXEL, 0, 0, -PIXEL, x + PIXEL / 2, y - PIXEL / 2].join('\n'),
      boundary: {
        type: 'FeatureCollection',
        features: ORCHARD.layers.map(({ layer, closed, points }) => ({
          type: 'Feature',
          properties: { layer },
          geometry: closed
            ? { type: 'Polygon', coordinates: [[...points, points[0]!].map(toLonLat)] }
            : { type: 'LineString', coordinates: points.map(toLonLat) },
        })),
      },
    });
  });
  router.get('/:id/picture', async ({ params }, response) => {
    if (!PARCELS.some(({ id }) => id === params.id)) return void response.status(404).json({ code: 'parcel-unknown' });
    response
      .type('image/jpeg')
      .set('Cache-Control', 'no-store')
      .send(await (aerial ??= encodeAerial()));
  });
  return router;
}

/** Made when it is first asked for, and once. */
let aerial: Promise<Buffer> | undefined;
const STRIP = 30;

/** Strip by strip, so that whoever asks for something else meanwhile is answered. */
async function encodeAerial(): Promise<Buffer> {
  const { width, height } = ORCHARD.picture;
  const picture = { width, height, data: new Uint8Array(4 * width * height) };
  for (let row = 0; row < height; row += STRIP) {
    paintAerial(picture, row, Math.min(height, row + STRIP));
    await new Promise((resolve) => setImmediate(resolve));
  }
  return jpeg.encode({ width, height, data: Buffer.from(picture.data.buffer) }, 82).data;
}
