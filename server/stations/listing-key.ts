/** The name under which an agent reports an editor's list: of a station and of the cards in its reader. */
export const listingKey = (stationId: string, editor: { editor_id: string; editor_version: string }): string =>
  `${stationId.slice(-8)}/${editor.editor_id}@${editor.editor_version}`;
