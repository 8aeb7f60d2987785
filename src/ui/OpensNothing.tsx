/** What a link opens that was closed, has run out or was never made. */
export function OpensNothing() {
  return (
    <main className="mx-auto mt-[12vh] max-w-md p-6">
      <h1 className="text-2xl">This link opens nothing.</h1>
      <p className="mt-2 text-soft">
        It was closed, has run out, or is not whole. Ask the workshop for another one.
      </p>
    </main>
  )
}
