export default function stop() {
  globalThis.lanternpostCluster?.stop();
}
