/** That the agent of a station could not be brought up to date, and why. */
interface Props {
  version: string;
  fault: string;
}

export function AgentProgram({ version, fault }: Props) {
  if (!fault) return null;
  return (
    <p role="note" className="mb-4 border-l-2 border-ochre pl-3">
      Its agent stays at version {version}: {fault}.
    </p>
  );
}
