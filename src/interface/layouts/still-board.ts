import type { Board } from '@/core/forecast';
import { objectIn, type Layout, type Plan } from '@/core/plan';
import { contentName, firstMedia } from '@/interface/kit/content/content';

/** A layout as a picture of all its zones, whatever the time and the screen: each with what it shows first. */
export const stillBoard = (plan: Plan, { id, name, width, height, background, zones }: Layout): Board => ({
  ...{ kind: 'layout', id, name, width, height, background },
  parts: zones.map((zone) => {
    const { x, y, content, fit } = zone;
    const media = content && firstMedia(plan, content);
    const card = content?.bulletin === undefined ? null : objectIn(plan, 'bulletin', content.bulletin);
    const words = card?.text ?? (content ? contentName(content, plan) : zone.id);
    const shown = media === undefined ? { name: words } : { media, fit };
    return { x, y, width: zone.width, height: zone.height, ...shown };
  }),
});
