/** How far a look's table can reach, in stops above middle gray: its tonal range. */
const stops = [3, 4, 5, 6] as const;

export function ReachOptions() {
  return (
    <>
      <option value="">from black to display white</option>
      {stops.map((above) => (
        <option key={above} value={above}>
          to +{above} EV above middle gray
        </option>
      ))}
    </>
  );
}
