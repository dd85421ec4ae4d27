import { registerKinds } from '../src/stage/catalogue.ts';

registerKinds();
