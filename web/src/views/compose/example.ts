/** A session that shows most of what the notation can say. */
export const EXAMPLE = `# Thursday, lower body
Front squat [belt]: 4 sets of (1 at 88% up 2%, 25s, 3 at 72%) rest 3:00
Trap-bar deadlift [belt, high handles]: 3 sets of (2, 2, 2) at 85% leave 1 within 10s rest 4:00
Leg extension: 1 set of (12 at 45 kg to failure, drop 20% to failure, drop 20% to failure)
pair, 3 rounds, rest 1:30:
  Ring dip: 6-8 leave 2
  Ring row: 8-10 leave 1
`;
