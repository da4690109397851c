/** Panels that are fetched together when the first of them is shown: one file of some size is sent in less than many small ones. */
export { CostPanel } from './cost/cost-panel';
export { HistoryPanel } from './history/history-panel';
export { EnvironmentPanel } from './lights/environment-panel';
export { PicturePanel } from './lights/picture-panel';
export { ProbePanel } from './looking/probe-panel';
export { OpacityPanel } from './outline/opacity-panel';
export { OutlinePanel } from './outline/outline-panel';
export { TermsMixer } from './terms/terms-mixer';
