# frozen_string_literal: true

require_relative "../../docs/pictures"

# The guide: ten pages that the app serves, and what they say of each panel.
RSpec.describe "The guide" do
  docs = Guide::FOLDER
  root = docs.parent
  # Where links of documents lead within the project.
  links = [root.join("README.md"), *docs.glob("**/*.md")].flat_map do |file|
    file.read.scan(/\]\((?!https?:)([^)#]+)/).flatten.map { |goal| [file, file.dirname.join(goal).cleanpath] }
  end

  it "has ten short pages and the list of commands, each served with its pictures, in the order in which they are read" do
    pages = Guide.entries
    lengths = pages.to_h { |page| [page.path.to_s, docs.join(page.path).each_line.count] }
    expect(lengths.delete(lengths.keys.last)).to be > 80
    expect([lengths.size, lengths.values.max]).to match [10, be_between(20, 80)]
    pages.each_cons(2) do |page, following|
      get "/docs/#{page.path}", {}, "HTTP_HOST" => "127.0.0.1"
      expect(last_response.body).to include("<h1", "#{following.title} →", "/docs/#{following.path}")
      pictures = last_response.body.scan(/<img src="([^"]+)"/).flatten
      pictures.each do |source|
        get File.expand_path(source, "/docs/guide"), {}, "HTTP_HOST" => "127.0.0.1"
        expect([last_response.content_type, last_response.body.byteslice(1, 3)]).to eq ["image/png", "PNG"]
      end
    end
  end

  it "says of every panel what it is for" do
    names = root.join("web/src/shell/panelNames.ts").read.scan(/name: "(.+?)"/).flatten
    topics = get_json("/api/help")
    expect([names.size, names - topics.keys]).to eq [15, []]
    expect(names.map { |name| topics[name]["words"].size }).to all(be_between(60, 330))
    get topics["Hand over"]["page"].split("#")[0], {}, "HTTP_HOST" => "127.0.0.1"
    expect(last_response.body).to include 'id="hand-over"'
  end

  it "leads nowhere that is not there, and has just the pictures that are made by the script" do
    expect(links.size).to be > 60
    expect(links.reject { |_, goal| goal.exist? }.map { |file, goal| "#{file.basename}: #{goal.relative_path_from(root)}" }).to eq []
    expect(docs.glob("screenshots/*").map { |file| file.basename(".png").to_s }).to match_array Pictures::ALL.keys
    shown = links.map { |_, goal| goal }.select { |goal| goal.extname == ".png" }.map { |goal| goal.basename(".png").to_s }
    expect(Pictures::ALL.keys - shown).to eq []
  end

  it "gives out documents only" do
    ["/docs/../Gemfile", "/docs/guide/none.md", "/docs/pictures.rb", "/docs/guide"].each do |path|
      get path, {}, "HTTP_HOST" => "127.0.0.1"
      expect(last_response.status).to eq 404
    end
  end
end
