import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import express from 'express';
import { inspectPicture, readPictureTags } from '../src/core/pictures';
import { caliper } from './stand-ins/caliper';
import { parcels } from './stand-ins/parcels';
import { scanner } from './stand-ins/scanner';

let server: Server;
let clock = 0;
beforeAll(
  (done) =>
    void (server = express()
      .use(
        '/scanner',
        scanner(() => clock),
      )
      .use('/caliper', caliper())
      .use('/parcels', parcels())
      .listen(0, done)),
);
afterAll((done) => {
  server.closeAllConnections();
  server.close(done);
});
const ask = async (place: string, body?: object) => {
  const answer = await fetch(
    `http://127.0.0.1:${(server.address() as AddressInfo).port}${place}`,
    body ? { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) } : {},
  );
  return {
    status: answer.status,
    json: async () => (await answer.json()) as Record<string, unknown>,
    bytes: async () => new Uint8Array(await answer.arrayBuffer()),
  };
};

it('the scanner takes its time, says what a hand did to it, and gives a page at the resolution that was asked for', async () => {
  expect(await (await ask('/scanner')).json()).toMatchObject({ state: 'ready', scaleError: 0.3 });
  expect((await ask('/scanner/scans', { dpi: 9000 })).status).toBe(400);
  await ask('/scanner/hand', { lid: 'open' });
  expect(await (await ask('/scanner/scans', { dpi: 75 })).json()).toEqual({ code: 'scanner-lid-open' });
  await ask('/scanner/hand', { lid: 'closed' });
  const began = await ask('/scanner/scans', { dpi: 75, area: { x: 0, y: 0, width: 148.5, height: 210 } });
  expect(began.status).toBe(202);
  const { id } = await began.json();
  expect((await ask('/scanner/scans', { dpi: 75 })).status).toBe(409);
  expect(await (await ask(`/scanner/scans/${String(id)}`)).json()).toMatchObject({ state: 'scanning', share: 0 });
  expect((await ask(`/scanner/scans/${String(id)}/picture`)).status).toBe(404);
  clock += 5000;
  expect(await (await ask(`/scanner/scans/${String(id)}`)).json()).toMatchObject({ state: 'done', dpi: 75 });
  const picture = await (await ask(`/scanner/scans/${String(id)}/picture`)).bytes();
  expect(inspectPicture(picture)).toMatchObject({
    ok: true,
    value: { mediaType: 'image/jpeg', width: 438, height: 620 },
  });
  expect(readPictureTags(picture).dpi).toBe(75);
  await ask('/scanner/hand', { jam: true });
  const { id: jammed } = await (await ask('/scanner/scans', { dpi: 75 })).json();
  clock += 900;
  expect(await (await ask(`/scanner/scans/${String(jammed)}`)).json()).toEqual({
    state: 'failed',
    code: 'scanner-jam',
  });
});

it('the caliper tells every change of its display, and what its button sends; while it is held it stands still', async () => {
  const stream = await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/caliper/readings`);
  const reader = stream.body!.getReader();
  const heard: { text: string; sent: boolean }[] = [];
  const hear = async () =>
    heard.push(JSON.parse(/data: (.*)/.exec(new TextDecoder().decode((await reader.read()).value))![1]!) as never);
  await hear();
  await ask('/caliper/hand', { mm: 25.4, unit: 'in' });
  await hear();
  await ask('/caliper/hand', { hold: true });
  await hear();
  await ask('/caliper/hand', { mm: 3 });
  await hear();
  await ask('/caliper/send', {});
  await hear();
  expect(heard.map(({ text, sent }) => [text, sent])).toEqual([
    ['0.00', false],
    ['1.0000', false],
    ['1.0000', false],
    ['1.0000', false],
    ['1.0000', true],
  ]);
  expect((await ask('/caliper/hand', { mm: -1 })).status).toBe(400);
  await reader.cancel();
});

it('the register finds a parcel by a part of its address, and gives boundary, picture and its place on the map', async () => {
  expect(await (await ask('/parcels?address=lane')).json()).toEqual({
    parcels: [{ id: 'orchard', address: '7 Medlar Lane' }],
  });
  expect(await (await ask('/parcels?address=')).json()).toEqual({ parcels: [] });
  const parcel = await (await ask('/parcels/orchard')).json();
  expect(parcel).toMatchObject({
    boundary: { type: 'FeatureCollection' },
    projection: expect.stringContaining('+proj=utm') as string,
  });
  expect(String(parcel.world).split('\n')).toHaveLength(6);
  expect((await ask('/parcels/elsewhere')).status).toBe(404);
  expect((await ask('/parcels/elsewhere/picture')).status).toBe(404);
});
