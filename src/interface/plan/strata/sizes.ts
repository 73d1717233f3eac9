/** Sizes of the layers, in pixels. */

export const LANE_HEIGHT = 26;
export const BAR_HEIGHT = 22;
/** Where the lowest lane begins, above its layer's foot. */
export const LANES_FROM = 2;
/** Room for drawing in a layer without lanes. */
const SHORTEST_BAND = 30;

/** How high a layer stands: room for its lanes, and for drawing where it has none. */
export const bandHeight = (lanes: number) => Math.max(SHORTEST_BAND, lanes * LANE_HEIGHT + 6);
