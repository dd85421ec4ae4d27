import './setup.ts';
import { readFileSync } from 'node:fs';
import { analyseLine, readJoint, shelfOf } from '../src/index.ts';
