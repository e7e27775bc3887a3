import {
  type CollisionDetection,
  DndContext,
  type DragEndEvent,
  PointerSensor,
  pointerWithin,
  type UniqueIdentifier,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { clsx } from "clsx";
import { group } from "d3-array";
import isEqual from "fast-deep-equal/es6";
import { GripVertical } from "lucide-react";
import { memo, type RefObject, useEffect, useMemo, useRef } from "react";
import type { Schemas, Step } from "@/data/client";
import { useWidth } from "@/parts/useWidth";
import { captionsOf } from "@/score/captions";
import { layoutScore } from "@/score/layout";
import { Score } from "@/score/Score";

/** What a drag came to: the lift of a line put before another one (or last), or done in turn with it. */
export interface Dropped {
  line: number;
  act: "before" | "onto";
  target: number | null;
}

const LEFT = 64;

/** What is under the pointer; of a gap and a group the gap, because it is the smaller. */
const underPointer: CollisionDetection = (drag) =>
  pointerWithin(drag).sort((a, b) => Number(isGap(b.id)) - Number(isGap(a.id)));

const isGap = (id: UniqueIdentifier) => String(id).startsWith("before");

/**
 * The score of the whole text. The group the caret is in is marked; a press on a group takes the caret there.
 * A lift is dragged by its handle: between groups to move it, onto a group to pair it.
 */
export const Groups = memo(function Groups({
  examined,
  line,
  onGoTo,
  onDrop,
  className,
}: {
  examined: Schemas["Examined"];
  line: number;
  onGoTo: (line: number) => void;
  onDrop: (dropped: Dropped) => void;
  className: string;
}) {
  const pane = useRef<HTMLDivElement>(null);
  const [ref, width] = useWidth<HTMLDivElement>();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const { steps } = examined.timeline;
  const groups = useMemo(
    () =>
      group(
        steps.filter((step) => !step.warm_up),
        (step) => step.group,
      ),
    [steps],
  );
  const drop = ({ active, over }: DragEndEvent) => {
    if (over) onDrop({ line: Number(active.id), ...(over.data.current as Pick<Dropped, "act" | "target">) });
  };
  return (
    <DndContext sensors={sensors} collisionDetection={underPointer} onDragEnd={drop}>
      <div ref={pane} className={className}>
        <div ref={ref}>
          {[...groups].map(([group, steps]) => {
            const lines = examined.lines[group - 1] ?? [];
            return (
              <div key={group}>
                <Gap target={lines[0] ?? null} />
                <Group
                  steps={steps}
                  lines={lines}
                  width={width}
                  on={lines.includes(line)}
                  pane={pane}
                  onGoTo={onGoTo}
                />
              </div>
            );
          })}
          <Gap target={null} />
        </div>
      </div>
    </DndContext>
  );
});

/** The place between two groups: a lift dropped here stands here. */
const Gap = memo(function Gap({ target }: { target: number | null }) {
  const { setNodeRef, isOver, active } = useDroppable({
    id: `before ${target}`,
    data: { act: "before", target },
  });
  return (
    <div className="relative h-2">
      <div ref={setNodeRef} className="pointer-events-none absolute inset-x-0 -inset-y-3 flex items-center">
        <div className={clsx("h-0.5 w-full", isOver ? "bg-work" : active && "bg-hairline")} />
      </div>
    </div>
  );
});

interface GroupProps {
  steps: Step[];
  lines: number[];
  width: number;
  on: boolean;
  pane: RefObject<HTMLDivElement | null>;
  onGoTo: (line: number) => void;
}

/** Scroll the pane, and nothing around it, until a group in it is whole in sight, or its top if it is taller. */
function bringIntoSight(pane: HTMLElement, group: HTMLElement) {
  const seen = pane.getBoundingClientRect();
  const { top, bottom, height } = group.getBoundingClientRect();
  if (top < seen.top || height > seen.height) pane.scrollTop += top - seen.top;
  else if (bottom > seen.bottom) pane.scrollTop += bottom - seen.bottom;
}

/** Drawn anew where something in it differs: what is written into one line leaves the other groups the same. */
const Group = memo(function Group({ steps, lines, width, on, pane, onGoTo }: GroupProps) {
  const { setNodeRef, isOver } = useDroppable({
    id: `onto ${lines[0]}`,
    data: { act: "onto", target: lines[0] },
  });
  const layout = useMemo(() => layoutScore({ steps, width: width - 14, left: LEFT }), [steps, width]);
  const place = useRef<HTMLDivElement | null>(null);
  useEffect(() => {
    const [around, group] = [pane.current, place.current];
    if (!on || !around || !group) return;
    const resized = new ResizeObserver(() => bringIntoSight(around, group));
    resized.observe(around);
    resized.observe(group);
    return () => resized.disconnect();
  }, [on, pane]);
  const entries = [...new Set(steps.map((step) => step.entry))];
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the written form is the way by key; this is a short cut
    // biome-ignore lint/a11y/noStaticElementInteractions: as above
    <div
      ref={(node) => {
        place.current = node;
        setNodeRef(node);
      }}
      onClick={() => lines[0] !== undefined && onGoTo(lines[0])}
      style={{ containIntrinsicHeight: `auto ${layout.height}px` }}
      className={clsx(
        "relative -ml-3 border-l-2 pl-3 [content-visibility:auto]",
        on ? "border-work" : "border-transparent",
        isOver && "bg-look/15",
      )}
    >
      <Score layout={layout} steps={steps} captions={captionsOf(steps)} left={LEFT} />
      {layout.staves.map((stave, place) => {
        const entry = entries[place] ?? 1;
        const line = lines[entry - 1];
        return (
          line !== undefined && (
            <Handle key={stave.exercise} line={line} name={stave.exercise} top={stave.top} />
          )
        );
      })}
    </div>
  );
}, isEqual);

/** What a lift is dragged by. By key the lift is moved with its buttons. */
function Handle({ line, name, top }: { line: number; name: string; top: number }) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: line });
  return (
    <span
      ref={setNodeRef}
      {...listeners}
      aria-hidden
      title={`Drag ${name}`}
      data-drag={name}
      style={{
        top: top - 10,
        left: LEFT - 36,
        transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
      }}
      className={clsx(
        "absolute z-10 grid size-11 cursor-grab touch-none place-items-center text-faint hover:text-ink",
        isDragging && "cursor-grabbing",
      )}
    >
      <GripVertical size={18} />
      {isDragging && (
        <b className="absolute left-9 rounded-card border border-ink bg-panel px-3 py-1 whitespace-nowrap text-ink">
          {name}
        </b>
      )}
    </span>
  );
}
