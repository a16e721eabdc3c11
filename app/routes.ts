import { existsSync, readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { type RouteConfig, index, layout, prefix, route } from '@react-router/dev/routes';

const roomsFolder = fileURLToPath(new URL('./rooms/', import.meta.url));

/** weighIn → weigh-in: folders are named as code is, addresses as people read. */
const address = (folder: string) => folder.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`);

/** Every folder with a `room.ts` is a room; its route module bears the folder's name. */
const rooms = readdirSync(roomsFolder)
  .filter((folder) => existsSync(`${roomsFolder}${folder}/room.ts`))
  .map((folder) => route(address(folder), `rooms/${folder}/${folder}.tsx`));

export default [
  layout('bench/BenchLayout.tsx', [
    layout('form/RoomBoundary.tsx', { id: 'bench-room' }, [
      index('bench/today.tsx'),
      route('trials/new', 'bench/newTrial/newTrial.tsx'),
      route('library', 'library/library.tsx'),
      route('library/kit', 'library/kit.tsx'),
      route('library/:productId', 'library/product.tsx'),
      route('calculator', 'bench/calculator.tsx'),
      route('instruments', 'bench/instruments.tsx'),
      route('table', 'bench/table/table.tsx'),
      route('standings', 'bench/standings.tsx'),
      route('data', 'bench/data.tsx'),
      route('eye', 'bench/eye/eye.tsx'),
      route('season', 'bench/season/season.tsx'),
      route('settings', 'bench/settings.tsx'),
      route('devices', 'bench/devices/devices.tsx'),
    ]),
  ]),
  route('trial/:trialId', 'rooms/TrialLayout.tsx', [
    layout('form/RoomBoundary.tsx', { id: 'trial-room' }, [
      index('rooms/enter.tsx'),
      ...rooms,
      route('log', 'rooms/log/log.tsx'),
    ]),
  ]),
  ...prefix('trial/:trialId', [
    route('labels', 'rooms/prints/labels.tsx'),
    route('card', 'rooms/prints/helpersCard.tsx'),
    route('mixing-card', 'rooms/mixing/mixingCard.tsx'),
    route('servers-card/:sessionId', 'rooms/panel/serversCard.tsx'),
    route('score-sheets/:sessionId', 'rooms/panel/scoreSheets.tsx'),
    route('taste/:sessionId/:taster', 'rooms/panel/taste.tsx'),
  ]),
  route('taste', 'rooms/panel/remoteTaste.tsx'),
  route('pair', 'bench/devices/pair.tsx'),
  route('help', 'bench/devices/help.tsx'),
] satisfies RouteConfig;
