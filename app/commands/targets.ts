/**
 * What commands need from components: a mounted component offers its actions under a name, so keys and the search can use
 * them without a reference to the component.
 */
export interface Targets {
  readonly search: { readonly open: () => void }
  readonly table: {
    /** Moves the caret into the formula or sentence of the selected entry. */
    readonly write: () => void
  }
  readonly scope: { readonly fit: () => void; readonly ghost: () => void }
  readonly stage: {
    readonly zoomBy: (factor: number) => void
    readonly fit: () => void
    readonly actualSize: () => void
    /** Resets the view of a piece in depth. */
    readonly lookStraight: () => void
  }
}

const targets: { -readonly [K in keyof Targets]?: Targets[K] | undefined } = {}

/** Offers a target until the component that calls this is unmounted. */
export function offerTarget<K extends keyof Targets>(name: K, target: Targets[K]): void {
  targets[name] = target
  onScopeDispose(() => {
    if (targets[name] === target) targets[name] = undefined
  })
}
export const targetNamed = <K extends keyof Targets>(name: K): Targets[K] | undefined => targets[name]
