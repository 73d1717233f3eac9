'use client';

import {
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
  type Active,
  type Announcements,
  type DragEndEvent,
  type DragMoveEvent,
} from '@dnd-kit/core';
import { useState } from 'react';
import { isFree, snapped, stopsFor, swapped, type Axis } from '@/core/layouts';
import type { Content, Layout, Media, Zone } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';

/** What is dragged: content from the shelf, or a zone. */
export type Dragged =
  | { readonly content: Content; readonly name: string; readonly file?: Media | undefined }
  | { readonly zone: string; readonly scale: number };

/** Within so many pixels of the page a zone that is moved stops at lines. */
export const NEAR_PX = 7;

const draggedOf = ({ data }: Active): Dragged | undefined => data.current as Dragged | undefined;

/**
 * What is dragged over a layout: content falls into the zone below it; a zone changes places with the one that it falls on; a zone that lies over
 * others moves.
 */
export function useZoneDragging({
  layout,
  choose,
  pull,
  change,
}: {
  layout: Layout;
  choose: (zone: string) => void;
  pull: (zones: readonly Zone[] | null) => void;
  change: (zones: readonly Zone[]) => Promise<unknown>;
}) {
  const { hold } = useNetwork('hold');
  const [carried, carry] = useState<string | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const { zones } = layout;
  const moved = (dragged: Dragged, delta: { readonly x: number; readonly y: number }): readonly Zone[] | null => {
    if (!('zone' in dragged) || !isFree(zones, dragged.zone)) return null;
    return movedZone(layout, dragged.zone, delta, dragged.scale);
  };
  const leave = () => carry(null);
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${nameOf(active)} picked up.`,
    onDragOver: ({ active, over }) => (over ? `${nameOf(active)} over the zone ${over.id}.` : undefined),
    onDragEnd: ({ active, over }) => (over ? `${nameOf(active)} put into the zone ${over.id}.` : 'Put back.'),
    onDragCancel: ({ active }) => `${nameOf(active)} put back.`,
  };
  const context = {
    sensors,
    accessibility: { announcements },
    collisionDetection: pointerWithin,
    onDragStart: ({ active }: { readonly active: Active }) => {
      const dragged = draggedOf(active);
      if (dragged && 'zone' in dragged) {
        choose(dragged.zone);
        if (!isFree(zones, dragged.zone)) carry(dragged.zone);
      } else if (dragged) carry(dragged.name);
    },
    onDragMove: ({ active, delta }: DragMoveEvent) => {
      const dragged = draggedOf(active);
      const next = dragged && moved(dragged, delta);
      if (next) pull(next);
    },
    onDragEnd: ({ active, collisions, delta }: DragEndEvent) => {
      leave();
      const dragged = draggedOf(active);
      if (!dragged) return;
      const next = moved(dragged, delta);
      if (next) return void change(next);
      // Of several zones under the pointer the one on top is meant.
      const under = new Set(collisions?.map(({ id }) => String(id)));
      const over = [...zones].reverse().find(({ id }) => under.has(id));
      if (!over) return;
      choose('zone' in dragged ? dragged.zone : over.id);
      if ('zone' in dragged) {
        if (over.id !== dragged.zone) void change(swapped(zones, dragged.zone, over.id));
        return;
      }
      if (dragged.file) hold([dragged.file]);
      void change(zones.map((one) => (one.id === over.id ? { ...one, content: dragged.content } : one)));
    },
    onDragCancel: () => {
      leave();
      pull(null);
    },
  };
  return { context, carried };
}

function nameOf(active: Active): string {
  const dragged = draggedOf(active);
  return !dragged ? 'It is' : 'zone' in dragged ? `The zone ${dragged.zone} is` : `${dragged.name} is`;
}

/** The zones with a free one moved by so many pixels of the page; its edges stop at lines that are near, and it stays in the layout. */
export function movedZone(
  { zones, width, height }: Layout,
  id: string,
  delta: { readonly x: number; readonly y: number },
  scale: number,
): Zone[] {
  const size = { width, height };
  const along = (axis: Axis, from: number, long: number, whole: number) => {
    const to = from + delta[axis] / scale;
    const stops = stopsFor(zones, axis, size, [id]);
    const begin = snapped(to, stops, NEAR_PX / scale);
    const end = snapped(to + long, stops, NEAR_PX / scale) - long;
    const at = begin === to ? end : begin;
    return Math.round(Math.min(Math.max(0, at), whole - long));
  };
  return zones.map((zone) =>
    zone.id === id
      ? { ...zone, x: along('x', zone.x, zone.width, width), y: along('y', zone.y, zone.height, height) }
      : zone,
  );
}
