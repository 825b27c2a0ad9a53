import { tidypath } from './tidypath';

// A pipe that is closed at its other end has heard enough.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(0);
  throw error;
});

void tidypath(process.argv.slice(2)).then((code) => (process.exitCode = code));
