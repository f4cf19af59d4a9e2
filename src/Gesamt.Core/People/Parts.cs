namespace Gesamt.Core.People;

/// <summary>The part somebody has in a project besides its client.</summary>
public enum PersonPart
{
    Decides,
    Pays,
    GetsMail,
    ReadsAlong,
    Supplies,
}

/// <summary>What a client page lets somebody do.</summary>
public enum PageAct
{
    Look,
    Pay,
    Answer,
}

/// <summary>What somebody may do on a project's client page, by the part they have.</summary>
public static class PartRule
{
    /// <summary>The client, who decides and who gets the mail act for the client; who pays looks and pays; who reads along looks; who supplies has no page.</summary>
    public static bool May(bool isClient, IReadOnlyCollection<PersonPart> parts, PageAct act) =>
        act switch
        {
            _ when isClient || parts.Contains(PersonPart.Decides) || parts.Contains(PersonPart.GetsMail) => true,
            PageAct.Look => parts.Contains(PersonPart.Pays) || parts.Contains(PersonPart.ReadsAlong),
            PageAct.Pay => parts.Contains(PersonPart.Pays),
            _ => false,
        };
}
