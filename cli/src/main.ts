import { registerKinds } from '@gristmill/core/stage/catalogue';
import { run } from './run.ts';

// A reader that stops early (head, less) is no fault.
process.stdout.on('error', (error: NodeJS.ErrnoException) => process.exit(error.code === 'EPIPE' ? 0 : 1));

registerKinds();
const { code, out, err } = await run(process.argv.slice(2));
process.stderr.write(err);
process.stdout.write(out);
process.exitCode = code;
