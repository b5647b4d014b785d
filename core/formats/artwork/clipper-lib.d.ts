declare module 'clipper-lib' {
  interface IntPoint {
    X: number
    Y: number
  }
  interface PolyNode {
    Contour(): IntPoint[]
    Childs(): PolyNode[]
    IsHole(): boolean
  }
  interface Tree {
    Childs(): PolyNode[]
  }
  interface Engine {
    StrictlySimple: boolean
    AddPaths(paths: IntPoint[][], type: number, closed: boolean): boolean
    Execute(type: number, tree: Tree, subject: number, clip: number): boolean
  }
  const lib: {
    Clipper: new () => Engine
    PolyTree: new () => Tree
    PolyType: { ptSubject: number }
    ClipType: { ctUnion: number }
    PolyFillType: { pftEvenOdd: number; pftNonZero: number }
  }
  export default lib
}
