import type { IEntity } from 'dxf-parser';

/** The group codes of one entity, each with its values in the order of the file (DXF reference, "Group code value types"). */
export class Groups {
  private readonly values = new Map<number, unknown[]>();

  constructor(readonly inOrder: readonly (readonly [code: number, value: unknown])[]) {
    for (const [code, value] of inOrder) {
      const known = this.values.get(code);
      if (known) known.push(value);
      else this.values.set(code, [value]);
    }
  }

  numbers(code: number): number[] {
    return (this.values.get(code) ?? []).map(Number);
  }

  number(code: number, otherwise: number): number {
    return this.numbers(code)[0] ?? otherwise;
  }

  text(code: number): string | undefined {
    const value = this.values.get(code)?.[0];
    return value === undefined ? undefined : String(value);
  }
}

interface Scanner {
  next(): { readonly code: number; readonly value: unknown };
  isEOF(): boolean;
}

/** What the parser asks of a reader of one kind of entity. */
interface EntityHandler {
  readonly ForEntityName: string;
  parseEntity(scanner: Scanner, first: { readonly value: unknown }): IEntity;
}

/** A reader that hands out all groups of an entity beside its kind. The parser's own readers pass over some: the direction of circles, the weights of splines; and go round for ever in polylines that are cut short. */
export function handlerOf(name: string): new () => EntityHandler {
  return class {
    readonly ForEntityName = name;

    parseEntity(scanner: Scanner): IEntity {
      const inOrder: (readonly [number, unknown])[] = [];
      for (let group = scanner.next(); !scanner.isEOF() && group.code !== 0; group = scanner.next())
        inOrder.push([group.code, group.value]);
      const groups = new Groups(inOrder);
      return {
        type: name,
        layer: groups.text(8) ?? '0',
        visible: groups.number(60, 0) === 0,
        inPaperSpace: groups.number(67, 0) !== 0,
        extrusionDirectionZ: groups.number(230, 1),
        groups,
      } as unknown as IEntity;
    }
  };
}

/** The groups of an entity that `handlerOf` has read. */
export function groupsOf(entity: IEntity): Groups {
  return (entity as IEntity & { readonly groups: Groups }).groups;
}
