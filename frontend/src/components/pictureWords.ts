/** Words of the pictures on the cord, fetched with them. */
export const words = {
  species: { rainbow: "rainbow", brown: "brown", brook: "brook" } as Record<string, string>,
  lightLeft: (percent: number) => `${percent} % of the light`,
  onCord: "On the cord",
  cordLayers: {
    temperature: "Temperature",
    oxygen: "Oxygen",
    open: "Open to trout",
    light: "Light",
    food: "Food",
    belief: "Likely depth",
  } as Record<string, string>,
  ring: "Depth under the ring",
  column: "Column of water",
  columnAt: (place: string, band: string) => `Column of water at ${place}: half the chance lies in ${band}`,
};
