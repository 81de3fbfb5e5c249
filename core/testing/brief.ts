/** Set up where small changes are tried: a property is tried for half a second, the same way each time. */
import fc from 'fast-check';

fc.configureGlobal({ interruptAfterTimeLimit: 500, seed: 20261128 });
