import { MAX_FILE } from '@gristmill/core';
import { registerKinds } from '@gristmill/core/stage/catalogue';
import { expose } from 'comlink';
import { bring } from '../storage/bring.ts';
import { writeBundle, writeJoint } from '../storage/bundle.ts';
import { JointShelf } from '../storage/joints.ts';
import { Recordings } from '../storage/recordings.ts';
import { BrowserVault } from '../storage/vault.ts';
import type { FilesApi } from './files-api.ts';

registerKinds();
const vault = new BrowserVault();
const home = { vault, shelf: new JointShelf(vault), recordings: new Recordings(vault) };

const api: FilesApi = {
  writeJoint: (joint) => writeJoint(joint, home.recordings, MAX_FILE),
  writeBundle: (wish, onProgress) => writeBundle(vault, home.recordings, wish, onProgress),
  bring: (file, onProgress) => bring(file, home, onProgress),
};

expose(api);
