/** Ends the process in order when it is told to stop; once, however often it is told. */
export function stopOnSignal(stop: () => Promise<void>): void {
  let stopping = false;
  const onSignal = () => {
    if (stopping) return;
    stopping = true;
    void stop().then(() => process.exit(0));
  };
  process.on('SIGTERM', onSignal);
  process.on('SIGINT', onSignal);
}
