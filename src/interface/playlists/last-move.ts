import { PointerSensor, type PointerSensorProps } from '@dnd-kit/core';
import { flushSync } from 'react-dom';

type At = Parameters<PointerSensorProps['onMove']>[0];

/**
 * The pointer, with what it did last: what is held over is known only as often as the page is drawn, and on a slow one a quick drop would
 * be told the place before. Its last move is drawn ahead of the end, so that what it collides with by then is right.
 */
export class LastMoveSensor extends PointerSensor {
  constructor(props: PointerSensorProps) {
    let last: At | undefined;
    super({
      ...props,
      onMove: (at) => {
        last = at;
        props.onMove(at);
      },
      onEnd: () => {
        const at = last;
        if (at) flushSync(() => props.onMove(at));
        props.onEnd();
      },
    });
  }
}
