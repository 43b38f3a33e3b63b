/** A seeded stream of numbers, for whatever is simulated: even from 0 to 1, and of a normal distribution. */
export interface Random {
  uniform(): number;
  normal(): number;
}
