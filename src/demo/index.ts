export { DEMO_NETWORK, DEMO_PEOPLE, seedDemo } from './seed';
export { openDemoTray } from './tray';
