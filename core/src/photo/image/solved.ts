import { LuDecomposition, Matrix } from 'ml-matrix';

/** Pivots smaller than this beside the largest are nothing but rounding: double precision holds sixteen digits. */
const NOTHING = 1e-14;

/** Solves a square system of linear equations by LU decomposition with row pivots; null where the equations say too little. */
export function solved(rows: readonly (readonly number[])[], right: readonly number[]): number[] | null {
  const lu = new LuDecomposition(new Matrix(rows.map((r) => [...r])));
  const pivots = lu.upperTriangularMatrix.diagonal().map(Math.abs);
  if (!(Math.min(...pivots) > NOTHING * Math.max(...pivots))) return null;
  return lu.solve(Matrix.columnVector([...right])).to1DArray();
}
