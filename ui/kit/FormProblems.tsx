/** What is wrong with a form whose fields have no room for it. */
export function FormProblems({ words }: { words: string }) {
  if (!words) return null;
  return (
    <p role="alert" className="mb-2 text-[12.5px] text-madder">
      {words}
    </p>
  );
}
