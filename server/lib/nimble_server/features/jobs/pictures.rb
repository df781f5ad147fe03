# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # Pictures of what was found on a job, for the eyes of its shop; on the customer's page where the mark says so.
      class Pictures
        MOST = 40

        def initialize(shop)
          @shop = shop
        end

        # @param job [Hash] row
        # @param data [String] base64
        # @param id [String, nil] made at the device: handed in twice, it is kept once
        # @return [Hash] see the contract, Picture
        # @raise [Refusal] 422 for what is no picture, in words
        def keep(job, data, id)
          known = id && @shop[:job_pictures].where(job_id: job[:id], id: id).first
          return shown(known) if known

          picture = Picture.read(decoded(data))
          refuse_many(job)
          values = { id: id || SecureRandom.uuid, job_id: job[:id], type: picture.type, width: picture.width }
          made = values.merge(height: picture.height, bytes: Sequel.blob(picture.bytes))
          @shop.insert(:job_pictures, made)
          shown(made)
        rescue Picture::Refused => e
          raise Refusal.new(422, "bad_picture", e.message, details: [{ "path" => "/data", "message" => e.message }])
        end

        # @return [Hash] row with its bytes
        # @raise [Refusal] 404
        def find(job, id) =
          @shop[:job_pictures].where(job_id: job[:id], id: id).first || raise(Refusal.not_found("picture"))

        private

        def decoded(data)
          data.unpack1("m0")
        rescue ArgumentError
          raise Picture::Refused, "The picture did not arrive whole."
        end

        def refuse_many(job)
          return if @shop[:job_pictures].where(job_id: job[:id]).count < MOST

          raise Picture::Refused, "This job has #{MOST} pictures already."
        end

        def shown(row) = { "id" => row[:id], "width" => row[:width], "height" => row[:height] }
      end
    end
  end
end
