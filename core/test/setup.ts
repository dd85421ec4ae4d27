import { registerKinds } from '../src/stage/kinds.ts';

registerKinds();
