import './notByEval';
import { expose } from 'comlink';
import { demoBench } from '../demo/demoBench';

const api = {
  /** The demo bench as of now. */
  make: demoBench,
};

export type DemoApi = typeof api;
expose(api);
