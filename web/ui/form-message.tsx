/** What stands in the way, said aloud; nothing where there is nothing to say. */
export const FormMessage = ({ children, className = "mt-1" }: { children: string; className?: string }) =>
  children ? (
    <p role="alert" className={`${className} font-semibold text-hot`}>
      ▲ {children}
    </p>
  ) : null;
