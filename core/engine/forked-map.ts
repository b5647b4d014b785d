/** A map that begins as another one and shares its entries, until so many have become others that a copy is cheaper. */

/** Values that differ from the shared entries, at most. */
const MOST_OWN = 16

/** Values are never undefined. */
export class ForkedMap<K, V> implements ReadonlyMap<K, V> {
  /** The values that differ from those of `all`, of keys that it has. */
  private readonly own = new Map<K, V>()
  private shared = false
  private all = new Map<K, V>()

  fork(): ForkedMap<K, V> {
    const made = new ForkedMap<K, V>()
    if (this.own.size >= MOST_OWN) this.settle()
    this.shared = true
    made.all = this.all
    made.shared = true
    for (const [key, value] of this.own) made.own.set(key, value)
    return made
  }

  get size(): number {
    return this.all.size
  }

  has(key: K): boolean {
    return this.all.has(key)
  }

  get(key: K): V | undefined {
    return (this.own.size > 0 ? this.own.get(key) : undefined) ?? this.all.get(key)
  }

  /** A key that it has keeps its place in the order. */
  set(key: K, value: V): this {
    if (this.shared && this.all.has(key)) {
      this.own.set(key, value)
      return this
    }
    this.settle()
    this.all.set(key, value)
    return this
  }

  clear(): void {
    this.own.clear()
    this.all = new Map()
    this.shared = false
  }

  keys(): MapIterator<K> {
    return this.all.keys()
  }

  values(): MapIterator<V> {
    this.gather()
    return this.all.values()
  }

  entries(): MapIterator<[K, V]> {
    this.gather()
    return this.all.entries()
  }

  [Symbol.iterator](): MapIterator<[K, V]> {
    return this.entries()
  }

  forEach(each: (value: V, key: K, map: ReadonlyMap<K, V>) => void): void {
    for (const [key, value] of this) each(value, key, this)
  }

  /** Has all values in one map, to go through them. */
  private gather(): void {
    if (this.own.size > 0) this.settle()
  }

  /** Has entries of its own. */
  private settle(): void {
    if (!this.shared) return
    this.all = new Map(this.all)
    this.shared = false
    for (const [key, value] of this.own) this.all.set(key, value)
    this.own.clear()
  }
}
