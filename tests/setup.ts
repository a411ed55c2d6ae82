/** Laws draw the same cases in every run of `npm test`, so that its answer is the same; others in a soak. */
import fc from 'fast-check';

fc.configureGlobal(process.env['CORVEL_LAWS'] === 'long' ? {} : { seed: 20_160 });
