namespace Vlei.Records.Audit;

/// <summary>A document with its lines, on its way into an audit file.</summary>
/// <param name="Head">The document.</param>
/// <param name="Lines">Its lines.</param>
internal sealed record AuditDocument(RecordText Head, IReadOnlyList<RecordText> Lines)
{
    /// <summary>Its id.</summary>
    public string Id => Head["id"];

    /// <summary>Documents with their lines, where both come in the same order of documents.</summary>
    public static IEnumerable<AuditDocument> Of(IEnumerable<RecordText> documents, IEnumerable<RecordText> lines)
    {
        using var line = lines.GetEnumerator();
        var isThere = line.MoveNext();
        foreach (var document in documents)
        {
            var own = new List<RecordText>();
            for (; isThere && line.Current["document"] == document["id"]; isThere = line.MoveNext())
            {
                own.Add(line.Current);
            }

            yield return new AuditDocument(document, own);
        }
    }
}
