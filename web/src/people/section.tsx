/** A part of a person's page. */
export const Section = ({ title, children }: { title: string; children: React.ReactNode }) => (
  <section>
    <h2 className="border-base-content mb-2 border-b-2 pb-1">{title}</h2>
    {children}
  </section>
);
