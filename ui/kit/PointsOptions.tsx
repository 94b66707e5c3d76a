/** Points an axis that a table is offered with, as the options of a list. */
export const TABLE_SIZES = [17, 25, 33, 48, 65] as const;

export const PointsOptions = () =>
  TABLE_SIZES.map((points) => (
    <option key={points} value={points}>
      {points}
    </option>
  ));
