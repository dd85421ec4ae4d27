// Breaks the product on purpose: `npm run torture -- [readers|kills] [--share 0.1] [--seed 7] [--rounds 300]`. Not part
// of the tests; a slice of it is.
import { tortureKills } from './kills.ts';
import { tortureReaders } from './run-readers.ts';

const args = process.argv.slice(2);
const option = (name: string, start: number): number => {
  const at = args.indexOf(`--${name}`);
  return at >= 0 ? Number(args[at + 1]) : start;
};
const seed = option('seed', Date.now() % 1_000_000);
const wants = (what: string) => !args[0] || args[0].startsWith('--') || args[0] === what;

let faults = 0;
if (wants('readers')) faults += tortureReaders(option('share', 1), seed);
if (wants('kills')) {
  const begun = performance.now();
  const tally = await tortureKills(option('rounds', 300), option('minutes', 60), seed, option('rows', 1_000_000));
  console.log(
    JSON.stringify({ torture: 'kills', seed, ...tally, seconds: Math.round((performance.now() - begun) / 1000) }),
  );
  faults += tally.faults.length;
  // Kills that hit nothing prove nothing: in a long run a third must, in a slice of it one.
  const wanted = tally.rounds >= 60 ? tally.rounds / 3 : Math.min(1, tally.rounds);
  if (tally.midWrite < wanted) {
    console.error(`Only ${tally.midWrite} of ${tally.rounds} kills came while something was being written.`);
    faults++;
  }
}
// Clocks that nobody waits for any more would keep it going for minutes.
process.exit(faults > 0 ? 1 : 0);
