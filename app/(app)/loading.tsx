export default function Loading() {
  return (
    <div className="px-6 pt-5" aria-busy="true">
      <p className="font-serif text-[26px] text-soft">Fetching</p>
      <div className="mt-6 h-px w-full bg-line" />
    </div>
  );
}
