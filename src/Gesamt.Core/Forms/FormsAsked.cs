using Gesamt.Core.Facts;

namespace Gesamt.Core.Forms;

/// <summary>Forms that were put on the client's page.</summary>
public static class FormsAsked
{
    /// <summary>Those not returned and not taken back, oldest first.</summary>
    public static IEnumerable<Seen<Happening.FormAsked>> Open(History history) =>
        history
            .Of<Happening.FormAsked>()
            .Where(asked =>
                !history.Facts.Any(fact =>
                    History.IsAfter(fact, asked.Fact)
                    && (
                        fact.What switch
                        {
                            Happening.FormReturned returned => returned.Form,
                            Happening.FormTakenBack back => back.Form,
                            Happening.FormAsked again => again.Form,
                            _ => (int?)null,
                        }
                    ) == asked.What.Form
                )
            );
}
