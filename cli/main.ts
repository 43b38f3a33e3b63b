import { bryony } from './bryony';

// No exit by force: what is written to a pipe is on its way still.
void bryony(process.argv.slice(2), {
  say: (text) => console.log(text),
  complain: (text) => console.error(text),
}).then((status) => (process.exitCode = status));
