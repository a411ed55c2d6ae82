/** What a new chart starts from: enough to see the shape of one. */
export const NEW_CHART = `title: Untitled
tempo: 100
[A]
| C | Am7 | Dm7 | G7 |
`;
