/** How the file that is carried to a station is called. */
export const carriedName = (station: string): string => `${station.replace(/[^\w-]+/g, '-')}.carried.zip`;
