import { KeyboardSensor, type KeyboardSensorProps } from '@dnd-kit/core';

/**
 * The keyboard sensor, listening as soon as an item is taken and until it is put down. The library begins to listen a moment later, by a timer: on
 * a slow page an arrow that was pressed in between was lost. The press that takes the item is not heard again.
 */
export class KeysAtOnceSensor extends KeyboardSensor {
  constructor(props: KeyboardSensorProps) {
    let over = false;
    const ending = (end: () => void) => () => {
      over = true;
      end();
    };
    super({ ...props, onEnd: ending(props.onEnd), onCancel: ending(props.onCancel) });
    const hear = this['handleKeyDown'] as (event: Event) => void;
    this['handleKeyDown'] = (event: Event) => {
      if (event !== props.event && !over) hear(event);
    };
    // The timer adds the same listener again, which browsers count once.
    this['listeners'].add('keydown', this['handleKeyDown']);
  }
}
