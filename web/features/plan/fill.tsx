"use client";

import { Link } from "@/ui/address";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { Lines, TheMix, WhatIsThere } from "./fill-panels";
import { type FillProps, useFill } from "./use-fill";

/** From what is there to what can be filled: each product alone, then the mix that uses it up best or earns most. */
export function FillFromShelf(props: FillProps) {
  const { names, products } = props;
  const fill = useFill(props);
  if (names.length === 0 || fill.containers.length === 0)
    return (
      <PageLayout title="What can I make?">
        <Empty
          title={names.length === 0 ? "No formula to fill with" : "No vessel to fill"}
          action={
            <Link className="action-button" data-next-step href={names.length === 0 ? "/formulas/new" : "/shelf"}>
              {names.length === 0 ? "Make a formula" : "Go to the shelf"}
            </Link>
          }
        >
          <p>The program calculates from your stock how many of each you can make, and which mix uses it best. It needs formulas and vessels.</p>
        </Empty>
      </PageLayout>
    );
  return (
    <PageLayout
      title="What can I make?"
      lead="What you can make from your stock."
      actions={
        <Link className="press" href="/plan">
          Back to the plan
        </Link>
      }
      side={
        <>
          <Aside title="Two questions">
            Each product shows how many of it alone the stock allows. Which <em>mix</em> uses the stock best, or earns the most, is calculated.
          </Aside>
          <Aside title="Materials without a limit">
            A material without an amount is treated as unlimited. Amounts come from the stock; change them to try something out.
          </Aside>
          <Aside title="Rounding">Rounding can make a batch need a little more than its jars together. Leave a little over.</Aside>
        </>
      }
    >
      <form
        ref={fill.fields.form}
        onSubmit={(event) => {
          event.preventDefault();
          fill.find();
        }}
      >
        <TheMix fill={fill} />
        <Lines fill={fill} products={products} />
        <WhatIsThere fill={fill} />
      </form>
    </PageLayout>
  );
}
